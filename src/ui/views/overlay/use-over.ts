import { useStore } from '@nanostores/react'
import { useEffect, useMemo } from 'react'
import { $fetched, type Fetching, fetchedKey, fetchOver, type OverChart, rowsIn } from '../../state/kept/lists.ts'
import type { RowOf } from '../../state/kept/row-types.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'

type Rows<K extends OverChart> = Parameters<typeof rowsIn<K>>[0]

/** All that is kept of a kind over a chart, fetched when it is first shown, and how that goes. */
export const useOver = <K extends OverChart>(
  kind: K,
  chartId: string | null,
): { readonly rows: readonly RowOf[K][]; readonly fetching: Fetching; readonly again: () => void } => {
  const standings = useStore($rows[kind], FIRST) as Rows<K>
  const fetched = useStore($fetched, FIRST)
  const again = (): void => {
    if (chartId !== null) void fetchOver(kind, chartId)
  }
  useEffect(again, [kind, chartId])
  const rows = useMemo(() => rowsIn<K>(standings).filter((r) => r.chartId === chartId), [standings, chartId])
  return { rows, again, fetching: chartId === null ? 'ready' : (fetched[fetchedKey(kind, chartId)] ?? 'loading') }
}
