import { atom } from 'nanostores'
import { type KeptStep, readChord, readOverlay, reverse, transposeChord, transposeOverlay } from '../../core/index.ts'
import type { Desk } from './desk.ts'
import { $kept, merge } from './kept.ts'
import { say } from './notices.ts'
import { $place, go } from './place.ts'
import { keptMeanwhile } from './plan-history.ts'
import { readPlan } from './plan-words.ts'
import { type Answer, type RouteRow, request } from './rows.ts'

/** The routes kept with the open chart, and those of any chart used lately; null while they are fetched. */
export const $routes = atom<readonly RouteRow[] | null>(null)
export const $routesFailed = atom<boolean>(false)

const MOST = 100

export const refreshRoutes = async (): Promise<void> => {
  const answer = await request<{ items: RouteRow[] }>('GET', `routes?limit=${MOST}`)
  $routesFailed.set(!answer.ok)
  if (!answer.ok) return
  $routes.set(answer.value.items)
  const followed = $kept.get()?.route
  if (followed) merge({ route: answer.value.items.find((r) => r.id === followed.id) ?? null })
}

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
  if (!answer.ok) {
    say(`${failed}: ${answer.detail}`)
    return false
  }
  keptMeanwhile()
  await refreshRoutes()
  say(done, 'undo')
  return true
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
