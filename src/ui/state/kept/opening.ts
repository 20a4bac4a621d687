import { map } from 'nanostores'
import { request } from './request.ts'
import type { KindName, RowOf } from './row-types.ts'
import { adoptRow, forgetRow, standingOf } from './rows.ts'

/** How the opening of a row goes; one that is open already stays in sight meanwhile. */
export type Opening =
  | { readonly state: 'loading' | 'open' | 'missing' }
  | { readonly state: 'failed'; readonly why: string }

/** By kind and id. */
export const $opening = map<Readonly<Record<string, Opening>>>({})

export const openingKey = (kind: KindName, id: string): string => `${kind} ${id}`

/** Reads a row of the server; again where it was read before. */
export const openRow = async (kind: KindName, id: string): Promise<Opening> => {
  const key = openingKey(kind, id)
  if (standingOf(kind, id)?.row.version === 0) return { state: 'open' }
  $opening.setKey(key, { state: 'loading' })
  const answer = await request<RowOf[typeof kind]>('GET', `${kind}/${encodeURIComponent(id)}`)
  if (answer.ok) adoptRow(kind, answer.value)
  else if (answer.code === 'not_found' && standingOf(kind, id)?.state === 'kept') forgetRow(kind, id)
  const opening: Opening = answer.ok
    ? { state: 'open' }
    : answer.code === 'not_found'
      ? { state: 'missing' }
      : { state: 'failed', why: answer.detail }
  $opening.setKey(key, opening)
  return opening
}
