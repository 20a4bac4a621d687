import type { ItemOf, Sources } from '../../../core/index.ts'
import { fetchOver } from '../kept/lists.ts'
import { openRow } from '../kept/opening.ts'
import type { RouteRow } from '../kept/row-types.ts'
import { $rows, standingOf } from '../kept/rows.ts'
import { $lineNotes, fetchNotes, notesOf, sounded } from '../line/lines.ts'

const opened = async <K extends 'charts' | 'lines' | 'routes'>(kind: K, id: string) => {
  if (!standingOf(kind, id)) await openRow(kind, id)
  return standingOf(kind, id)?.row ?? null
}

const stepsOf = (route: RouteRow | null): NonNullable<Sources['steps']> =>
  (route?.steps ?? []).flatMap(({ bar, beat, beats, overlay }) =>
    overlay === null || bar === undefined ? [] : [{ bar, beat: beat ?? 1, beats: beats ?? 4, overlay }],
  )

/** The route an item names, else the one in hand over its chart. */
const routeFor = async ({ routeId, chartId }: ItemOf): Promise<RouteRow | null> => {
  if (routeId) return opened('routes', routeId)
  if (!chartId) return null
  await fetchOver('routes', chartId)
  return (
    Object.values($rows.routes.get())
      .map((s) => s.row)
      .find((r) => r.chartId === chartId && r.inHand) ?? null
  )
}

/** Everything an item is played from, fetched where it is not here; in words what is missing. */
export const sourcesFor = async (of: ItemOf): Promise<Sources | { readonly missing: string }> => {
  const line = of.lineId ? await opened('lines', of.lineId) : null
  if (of.lineId && !line) return { missing: 'Its line is gone.' }
  const chartId = of.chartId ?? line?.chartId ?? null
  const chart = chartId === null ? null : await opened('charts', chartId)
  if (chartId !== null && !chart) return { missing: 'Its chart is gone.' }
  const text = chart?.text ?? line?.text ?? undefined
  if (line && text !== undefined) await fetchNotes(line, text)
  const notes = line && notesOf(line, $lineNotes.get())
  const needsSteps = of.kind === 'route' || of.outside === 'the route in hand'
  const other = of.outsideChartId ? await opened('charts', of.outsideChartId) : null
  return {
    text,
    overrides: chart?.overrides ?? null,
    steps: needsSteps ? stepsOf(await routeFor(of)) : [],
    ...(notes ? { line: sounded(notes) } : {}),
    otherText: other?.text,
  }
}
