import { atom } from 'nanostores'
import {
  type At,
  type Interval,
  type Loosening,
  type RouteReport,
  type RouteRequest,
  sameAt,
} from '../../../core/index.ts'
import { type PlanAsk, planInWorker, stopPlanningInWorker } from '../../../workers/start.ts'
import type { Address } from '../address/address.ts'
import type { Kept } from '../kept/kept.ts'
import type { OpenChart } from '../tune/open-chart.ts'
import type { RouteModel } from './route-model.ts'

/** How a planning stands; routes are in written pitch. While a new one is under way the last routes stay in sight. */
export interface Planning {
  readonly state: 'planning' | 'routes' | 'none' | 'stopped' | 'wrong'
  /** Share done, 0..1. */
  readonly share: number
  readonly routes: readonly RouteReport[]
  readonly ms: number
  readonly loosen: readonly Loosening[]
  readonly text: string
}

const NOTHING: Planning = { state: 'planning', share: 0, routes: [], ms: 0, loosen: [], text: '' }
export const $planning = atom<Planning>(NOTHING)

/** Other overlays for one step, each with what the whole route then costs; null while they are being looked for. */
export const $others = atom<{ readonly key: string; readonly routes: readonly RouteReport[] | null } | null>(null)

const BEST = 20
const OTHERS = 12
let asked: string | null = null

interface Ground {
  readonly text: string
  readonly overrides: PlanAsk['overrides']
  readonly written: Interval
  readonly repeats: boolean
}

const groundOf = (address: Address, kept: Kept, openChart: OpenChart): Ground => ({
  text: address.sketch ?? kept.chart?.text ?? '',
  overrides: address.sketch === null ? (kept.chart?.overrides ?? null) : null,
  written: openChart.instrument.written,
  repeats: address.sketch === null,
})

const askOf = (
  ground: Ground,
  openChart: OpenChart,
  request: RouteRequest,
  best: number,
  eachSeries: boolean,
): PlanAsk => {
  const { school, weights, naming } = openChart.settings
  return { ...ground, school, weights, naming, request, best, eachSeries }
}

/** Plans what is asked in the place in view, unless that was asked last. */
export const planFor = async (address: Address, kept: Kept, openChart: OpenChart, model: RouteModel): Promise<void> => {
  const ask = askOf(groundOf(address, kept, openChart), openChart, model.request, BEST, model.plan.eachSeries)
  const key = JSON.stringify(ask)
  if (key === asked) return
  asked = key
  const mine = (): boolean => asked === key
  const otherChart = $planning.get().text !== ground(ask)
  $planning.set({ ...(otherChart ? NOTHING : $planning.get()), state: 'planning', share: 0, text: ground(ask) })
  $others.set(null)
  try {
    const planned = await planInWorker('routes', ask, (share) => mine() && $planning.set({ ...$planning.get(), share }))
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
  void stopPlanningInWorker().catch(() => undefined)
}

/** Plans again what was stopped or failed. */
export const planAgain = (address: Address, kept: Kept, openChart: OpenChart, model: RouteModel): void => {
  asked = null
  void planFor(address, kept, openChart, model)
}

/** The steps of a route but the one at a place, and those that go on with its overlay. */
const beyond = ({ steps }: RouteReport, at: At): RouteReport['steps'] => {
  const from = steps.findIndex((s) => sameAt(s, at))
  const next = steps.findIndex((s, i) => i > from && !s.carries)
  return steps.filter((_, i) => i < from || (next >= 0 && i >= next))
}

/** What else could stand at one step while the rest of the route in view stays as it is. */
export const findOthers = async (
  address: Address,
  kept: Kept,
  openChart: OpenChart,
  model: RouteModel,
  route: RouteReport,
  at: At,
): Promise<void> => {
  const locks = beyond(route, at).map(({ bar, beat, overlay }) => ({ bar, beat, overlay }))
  const request = { ...model.request, locks }
  const ask = askOf(groundOf(address, kept, openChart), openChart, request, OTHERS, false)
  const key = JSON.stringify([at, route.steps.map((s) => s.overlay), model.plan])
  if ($others.get()?.key === key) return
  $others.set({ key, routes: null })
  const planned = await planInWorker('others', ask, () => undefined).catch(() => null)
  if ($others.get()?.key !== key) return
  if (planned === null || planned.kind === 'stopped') return $others.set({ key: '', routes: [] })
  $others.set({ key, routes: planned.kind === 'routes' ? planned.routes : [] })
}
