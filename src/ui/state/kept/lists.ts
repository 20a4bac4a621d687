import { map } from 'nanostores'
import { type Answer, request } from './request.ts'
import type { KindName, RowOf } from './row-types.ts'
import { $rows, adoptRows, forgetRow, standingOf } from './rows.ts'

/** Kinds whose rows lie over a chart. */
export type OverChart = 'lines' | 'routes' | 'ideas'

export interface Page<R> {
  readonly items: readonly R[]
  readonly next: string | null
}

export type Fetching = 'loading' | 'ready' | 'failed'

/** How the fetching of what lies over a chart goes, by kind and chart. */
export const $fetched = map<Readonly<Record<string, Fetching>>>({})
export const fetchedKey = (kind: OverChart, chartId: string): string => `${kind} ${chartId}`

const MOST = '200'

export const fetchPage = <K extends KindName>(
  kind: K,
  query: Readonly<Record<string, string>>,
): Promise<Answer<Page<RowOf[K]>>> => request('GET', `${kind}?${new URLSearchParams(query)}`)

/** Fetches those of a kind that were changed last, of whatever chart. */
export const fetchLatest = async (kind: OverChart): Promise<void> => {
  const answer = await fetchPage(kind, {})
  if (answer.ok) adoptRows(kind, answer.value.items)
}

/** Fetches all that is kept over a chart, page by page; what was removed elsewhere goes. */
export const fetchOver = async (kind: OverChart, chartId: string): Promise<void> => {
  const key = fetchedKey(kind, chartId)
  if ($fetched.get()[key] !== 'ready') $fetched.setKey(key, 'loading')
  const before = new Set(rowsOver(kind, chartId).map((r) => r.id))
  let after: string | null = null
  do {
    const answer: Answer<Page<RowOf[OverChart]>> = await fetchPage(kind, {
      ...{ chartId, limit: MOST },
      ...(after === null ? {} : { after }),
    })
    if (!answer.ok) return $fetched.setKey(key, 'failed')
    for (const row of answer.value.items) before.delete(row.id)
    adoptRows(kind, answer.value.items)
    after = answer.value.next
  } while (after !== null)
  for (const id of before) if (standingOf(kind, id)?.state === 'kept') forgetRow(kind, id)
  $fetched.setKey(key, 'ready')
}

const lastFirst = (a: { readonly updatedAt: string }, b: { readonly updatedAt: string }): number =>
  b.updatedAt < a.updatedAt ? -1 : b.updatedAt > a.updatedAt ? 1 : 0

/** The rows of a kind this page knows of, those that were changed last first. */
export const rowsIn = <K extends KindName>(
  standings: Readonly<Record<string, { readonly row: RowOf[K] }>>,
): readonly RowOf[K][] =>
  Object.values(standings)
    .map((s) => s.row)
    .sort(lastFirst)

/** Those of them that lie over a chart. */
export const rowsOver = <K extends OverChart>(kind: K, chartId: string): readonly RowOf[K][] =>
  (rowsIn($rows[kind].get() as never) as readonly RowOf[K][]).filter((r) => r.chartId === chartId)
