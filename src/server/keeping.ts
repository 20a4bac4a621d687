import type { APIContext } from 'astro'
import { computeFor } from './computing/in-thread.ts'
import { BODY_LIMIT, endpoint, json, jsonBytes, notAllowed, readBody, readQuery, TAKE_LIMIT } from './door.ts'
import { isKind, KINDS, type Kind } from './kinds.ts'
import { listRows } from './lists.ts'
import { Problem } from './problems.ts'
import { createRow, deleteRow, getRow, type Undone, updateRow } from './rows.ts'
import { CHANGE, listOf, STEP_OF_UNDO } from './schemas.ts'
import type { Database } from './sql.ts'
import { store } from './store.ts'

export { notAllowed }

const kindOf = (params: Record<string, string | undefined>): Kind => {
  if (isKind(params.kind)) return KINDS[params.kind]
  throw new Problem('not_found', `/api/v1/${params.kind} is not part of this interface.`)
}

const idOf = (params: Record<string, string | undefined>): string => params.id ?? ''

export const listEndpoint = endpoint(async ({ params, url }) => {
  const kind = kindOf(params)
  return json(await listRows(await store(), kind.name, readQuery(url, listOf(kind))))
})

/** What a row is to hold, checked aside: a chart or a line has to be read whole for that. */
const fieldsOf = async (context: APIContext, kind: Kind, versioned: boolean) => {
  const body = await jsonBytes(context.request, false, kind.name === 'takes' ? TAKE_LIMIT : BODY_LIMIT)
  const answer = await computeFor(context, 'row', { body, kind: kind.name, versioned })
  if (answer.kind !== 'fields') throw new Error('a row is checked into its fields')
  return answer.fields
}

export const createEndpoint = endpoint(async (context) => {
  const kind = kindOf(context.params)
  const { step } = readQuery(context.url, STEP_OF_UNDO)
  const { id, ...fields } = await fieldsOf(context, kind, false)
  const given = typeof id === 'string' ? id : null
  return json(await createRow(await store(), kind.name, fields, { id: given, step }), 201)
})

export const getEndpoint = endpoint(async ({ params }) =>
  json(await getRow(await store(), kindOf(params).name, idOf(params))),
)

export const updateEndpoint = endpoint(async (context) => {
  const kind = kindOf(context.params)
  const { step } = readQuery(context.url, STEP_OF_UNDO)
  const { version, ...fields } = await fieldsOf(context, kind, true)
  return json(await updateRow(await store(), kind.name, idOf(context.params), Number(version), fields, step))
})

export const deleteEndpoint = endpoint(async ({ params }) =>
  json(await deleteRow(await store(), kindOf(params).name, idOf(params))),
)

/** Undo and redo: the last change, or the one the body names. */
export const changeEndpoint = (bring: (db: Database, given: string | null) => Promise<Undone>) =>
  endpoint(async ({ request }) => {
    const { change } = await readBody(request, CHANGE, true)
    return json(await bring(await store(), change))
  })
