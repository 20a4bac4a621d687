import { type KeptStep, readChord, readOverlay, reverse, transposeChord, transposeOverlay } from '../../core/index.ts'
import type { Desk } from './desk.ts'
import { $kept, merge } from './kept.ts'
import { keptList } from './kept-list.ts'
import { $place, go } from './place.ts'
import { keptMeanwhile } from './plan-history.ts'
import { readPlan } from './plan-words.ts'
import { type Answer, type RouteRow, request } from './rows.ts'

const list = keptList<RouteRow>('routes', (rows) => {
  const followed = $kept.get()?.route
  if (followed) merge({ route: rows.find((r) => r.id === followed.id) ?? null })
})
/** The routes kept lately, of any chart. */
export const { $rows: $routes, $failed: $routesFailed, refresh: refreshRoutes } = list

/** A step in concert pitch, without what can be worked out again. */
const concertStep = (step: KeptStep, desk: Desk): KeptStep => {
  const back = reverse(desk.instrument.written)
  const [chord, overlay] = [readChord(step.chord ?? ''), readOverlay(step.overlay)]
  const { seam: _, why: __, terms: ___, ...plain } = step
  return {
    ...plain,
    ...(chord.ok ? { chord: transposeChord(chord.value, back).symbol } : {}),
    overlay: overlay.ok ? transposeOverlay(overlay.value, back).name : step.overlay,
  }
}

const told = async (answer: Answer<unknown>, done: string, failed: string): Promise<boolean> => {
  if (answer.ok) keptMeanwhile()
  return list.told(answer, done, failed)
}

/** Keeps a route (written pitch) with the open chart, under a name. */
export const keepRoute = async (name: string, steps: readonly KeptStep[], desk: Desk): Promise<void> => {
  const [place, chart] = [$place.get(), $kept.get()?.chart ?? null]
  if (!place) return
  const own = desk.isSketch ? null : chart
  const answer = await request<RouteRow>('POST', 'routes', {
    name,
    chartId: own?.id ?? null,
    chartVersion: own?.version ?? null,
    steps: steps.map((s) => concertStep(s, desk)),
    rules: readPlan(place.plan),
  })
  if (answer.ok) go({ panel: 'kept' })
  await told(answer, 'Kept.', 'Not kept')
}

const rowBody = ({ name, note, chartId, chartVersion, steps, rules, version }: RouteRow) => ({
  ...{ name, note, chartId, chartVersion, steps, rules, version },
})

export const renameRoute = async (row: RouteRow, name: string): Promise<void> => {
  if (name.trim() === '' || name === row.name) return
  await told(await request('PUT', `routes/${row.id}`, { ...rowBody(row), name }), 'Renamed.', 'Not renamed')
}

export const removeRoute = async (row: RouteRow): Promise<void> => {
  const gone = await told(await request('DELETE', `routes/${row.id}`), 'Removed.', 'Not removed')
  if (!gone) return
  const place = $place.get()
  go({
    ...(place?.route === row.id ? { route: null } : {}),
    ...(place?.against === row.id ? { against: null } : {}),
  })
}
