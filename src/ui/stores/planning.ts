import { atom } from 'nanostores'
import { type At, type Interval, type Loosening, type RouteRequest, sameAt, type ToldRoute } from '../../core/index.ts'
import { type PlanAsk, planAside, stopPlanningAside } from '../../workers/start.ts'
import type { Desk } from './desk.ts'
import type { Kept } from './kept.ts'
import type { Place } from './place.ts'
import type { RouteModel } from './route-model.ts'

/** How a planning stands; routes are in written pitch. While a new one is under way the last routes stay in sight. */
export interface Planning {
  readonly state: 'planning' | 'routes' | 'none' | 'stopped' | 'wrong'
  /** Share done, 0..1. */
  readonly share: number
  readonly routes: readonly ToldRoute[]
  readonly ms: number
  readonly loosen: readonly Loosening[]
  readonly text: string
}

const NOTHING: Planning = { state: 'planning', share: 0, routes: [], ms: 0, loosen: [], text: '' }
export const $planning = atom<Planning>(NOTHING)

/** Other overlays for one step, each with what the whole route then costs; null while they are being looked for. */
export const $others = atom<{ readonly key: string; readonly routes: readonly ToldRoute[] | null } | null>(null)

const BEST = 20
const OTHERS = 12
let asked: string | null = null

interface Ground {
  readonly text: string
  readonly overrides: PlanAsk['overrides']
  readonly written: Interval
  readonly repeats: boolean
}

const groundOf = (place: Place, kept: Kept, desk: Desk): Ground => ({
  text: place.sketch ?? kept.chart?.text ?? '',
  overrides: place.sketch === null ? (kept.chart?.overrides ?? null) : null,
  written: desk.instrument.written,
  repeats: place.sketch === null,
})

const askOf = (ground: Ground, desk: Desk, request: RouteRequest, best: number, eachSeries: boolean): PlanAsk => {
  const { school, weights, naming } = desk.settings
  return { ...ground, school, weights, naming, request, best, eachSeries }
}

/** Plans what is asked in the place in view, unless that was asked last. */
export const planFor = async (place: Place, kept: Kept, desk: Desk, model: RouteModel): Promise<void> => {
  const ask = askOf(groundOf(place, kept, desk), desk, model.request, BEST, model.plan.eachSeries)
  const key = JSON.stringify(ask)
  if (key === asked) return
  asked = key
  const mine = (): boolean => asked === key
  const otherChart = $planning.get().text !== ground(ask)
  $planning.set({ ...(otherChart ? NOTHING : $planning.get()), state: 'planning', share: 0, text: ground(ask) })
  $others.set(null)
  try {
    const planned = await planAside(ask, (share) => mine() && $planning.set({ ...$planning.get(), share }))
    if (!mine()) return
    const base = { ...NOTHING, text: ground(ask) }
    if (planned.kind === 'routes') $planning.set({ ...base, state: 'routes', routes: planned.routes, ms: planned.ms })
    else if (planned.kind === 'none') $planning.set({ ...base, state: 'none', loosen: planned.loosen })
    else $planning.set({ ...base, state: planned.kind })
  } catch {
    if (mine()) $planning.set({ ...NOTHING, state: 'wrong', text: ground(ask) })
  }
}

/** What routes belong to: another chart's are not shown meanwhile. */
const ground = ({ text, written }: PlanAsk): string => `${written.semitones} ${text}`

export const stopPlanning = (): void => {
  asked = null
  $planning.set({ ...$planning.get(), state: 'stopped' })
  void stopPlanningAside()
}

/** Plans again what was stopped or failed. */
export const planAgain = (place: Place, kept: Kept, desk: Desk, model: RouteModel): void => {
  asked = null
  void planFor(place, kept, desk, model)
}

/** The steps of a route but the one at a place, and those that go on with its overlay. */
const beyond = ({ steps }: ToldRoute, at: At): ToldRoute['steps'] => {
  const from = steps.findIndex((s) => sameAt(s, at))
  const next = steps.findIndex((s, i) => i > from && !s.carries)
  return steps.filter((_, i) => i < from || (next >= 0 && i >= next))
}

/** What else could stand at one step while the rest of the route in view stays as it is. */
export const findOthers = async (
  place: Place,
  kept: Kept,
  desk: Desk,
  model: RouteModel,
  route: ToldRoute,
  at: At,
): Promise<void> => {
  const locks = beyond(route, at).map(({ bar, beat, overlay }) => ({ bar, beat, overlay }))
  const request = { ...model.request, locks }
  const ask = askOf(groundOf(place, kept, desk), desk, request, OTHERS, false)
  const key = JSON.stringify([at, route.steps.map((s) => s.overlay), model.plan])
  if ($others.get()?.key === key) return
  $others.set({ key, routes: null })
  const planned = await planAside(ask, () => undefined)
  if ($others.get()?.key === key) $others.set({ key, routes: planned.kind === 'routes' ? planned.routes : [] })
}
