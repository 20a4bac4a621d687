import { toGlyphs } from '../../../core/index.ts'
import { say } from '../page/notices.ts'
import { forgetChart } from './kept.ts'
import { changeWords, KINDS } from './kinds.ts'
import { fetchOver } from './lists.ts'
import { request } from './request.ts'
import type { KindName, RowOf } from './row-types.ts'
import { adoptRow, dropUnsent, flushAll, forgetRow, keyOfRow, standingOf } from './rows.ts'

interface Brought<K extends KindName = KindName> {
  readonly kind: K
  readonly action: 'create' | 'update' | 'delete'
  readonly row: RowOf[K] | null
  readonly id: string
}

const DID = { undo: 'Undone', redo: 'Done again' } as const

const titleOf = <K extends KindName>(kind: K, row: RowOf[K]): string =>
  `the ${KINDS[kind].noun} ${KINDS[kind].title(row)}`

/** What was brought back, in words, and shown. */
const show = <K extends KindName>({ kind, action, row, id }: Brought<K>): string => {
  const key = keyOfRow(kind, id)
  const before = standingOf(kind, key)?.row
  // Which route of the chart is in hand may have changed with it.
  const { chartId } = (row ?? before ?? {}) as Partial<RowOf['routes']>
  if (kind === 'routes' && chartId) void fetchOver('routes', chartId)
  if (row === null) {
    if (kind === 'charts') forgetChart(key)
    else forgetRow(kind, key)
    return `making ${before ? titleOf(kind, before) : `a ${KINDS[kind].noun}`}`
  }
  adoptRow(kind, row)
  if (action === 'update' && before) return changeWords(kind, before, row)
  return action === 'update'
    ? titleOf(kind, row)
    : `${action === 'delete' ? 'removing' : 'making'} ${titleOf(kind, row)}`
}

const bring = async (way: 'undo' | 'redo'): Promise<RowKey | null> => {
  const answer = await request<Brought>('POST', way)
  if (answer.ok) say(toGlyphs(`${DID[way]}: ${show(answer.value)}.`))
  else say(answer.detail)
  return answer.ok ? answer.value : null
}

export interface RowKey {
  readonly kind: KindName
  readonly id: string
}

/** Takes back what was changed last and gives its row; `of` is the row this page changed last, maybe not sent yet. */
export const undoKept = async (of: RowKey | null): Promise<RowKey | null> => {
  await flushAll()
  const standing = of && standingOf(of.kind, of.id)
  if (of && standing && standing.state !== 'kept' && dropUnsent(of.kind, of.id)) {
    const after = standingOf(of.kind, of.id)?.row ?? standing.row
    say(toGlyphs(`Undone: ${changeWords(of.kind, standing.row, after)}.`))
    return of
  }
  return bring('undo')
}

export const redoKept = async (): Promise<RowKey | null> => {
  await flushAll()
  return bring('redo')
}
