import {
  type Analysis,
  arcOf,
  directionBetween,
  handLaid,
  type Overlay,
  type Reading,
  type RouteReport,
  type RouteRequest,
  readChord,
  readOver,
  readOverlay,
  readRequest,
  type Slot,
  SPOT_BY_SPOT,
  sameAt,
  seamBetween,
  slotsOf,
  stepAt,
  transposeChord,
  transposeOverlay,
  turnsOf,
  type WishedFade,
} from '../../../core/index.ts'
import type { BandStep } from '../../figures/RouteStep.tsx'
import type { Address } from '../address/address.ts'
import type { Kept } from '../kept/kept.ts'
import type { RouteRow } from '../kept/row-types.ts'
import type { OpenChart } from '../tune/open-chart.ts'
import { movePlan, type PlanWords, readPlan, USUAL_PLAN, type WholePlan } from './plan-words.ts'

/** One step as the view shows it, in written pitch. */
export interface ShownStep {
  readonly slot: Slot
  readonly wished: number
  /** Null where no route is in view, or where a kept one has nothing here. */
  readonly overlay: Overlay | null
  readonly reading: Reading | null
  readonly locked: boolean
  /** Of a kept route: the chord that stood here when it was planned, where it is another one now. */
  readonly was: string | null
}

/** The Route view before anything is planned. Everything in written pitch. */
export interface RouteModel {
  readonly plan: WholePlan
  /** The plan with a wish for every step. */
  readonly request: RouteRequest
  readonly slots: readonly Slot[]
  readonly analysis: Analysis
  readonly current: Slot | null
}

const NO_LOCKS: ReturnType<typeof handLaid> = []
const wholePlan = (words: PlanWords): WholePlan => ({ ...USUAL_PLAN, ...words })

/** The ready shape, with the player's own wishes over it. */
const wishesFor = (plan: WholePlan, openChart: OpenChart, slots: readonly Slot[]): readonly WishedFade[] =>
  openChart.chart === null
    ? []
    : arcOf(plan.preset, openChart.chart, slots).map((w) => plan.arc.find((own) => sameAt(own, w)) ?? w)

/** What the view shows of the chart and of what is asked; null where no chart is open or nothing in it can be planned. */
export const routeModel = (address: Address, openChart: OpenChart, inHand: RouteRow | null): RouteModel | null => {
  if (!openChart.chart || !openChart.key) return null
  const { written } = openChart.instrument
  const hand = openChart.inHand === null ? NO_LOCKS : handLaid(inHand?.steps ?? [])
  const asked = wholePlan(movePlan(readPlan(address.plan), written))
  const moved = movePlan({ locks: hand }, written).locks ?? hand
  // What was laid by hand stays, whatever a recipe would put there.
  const plan = { ...asked, locks: [...moved, ...asked.locks.filter((l) => !moved.some((h) => sameAt(h, l)))] }
  const analysis: Analysis = { key: openChart.key, spots: openChart.spots, chains: openChart.chains }
  const wishes = readRequest(plan, openChart.settings.naming)
  const options = wishes.ok ? wishes.value.slots : SPOT_BY_SPOT
  const slots = slotsOf(analysis, openChart.overrides, openChart.settings.school, options)
  const at = slots.filter((s) => s.bar < address.bar || (s.bar === address.bar && s.beat <= address.beat + 1e-6)).at(-1)
  const { preset: _, eachSeries: __, ...request } = plan
  return {
    plan,
    request: { ...request, arc: wishesFor(plan, openChart, slots) },
    slots,
    analysis,
    current: at ?? slots[0] ?? null,
  }
}

const shown = (
  model: RouteModel,
  openChart: OpenChart,
  overlayAt: (slot: Slot) => { overlay: Overlay; was: string | null } | null,
) =>
  model.slots.map((slot): ShownStep => {
    const laid = overlayAt(slot)
    return {
      slot,
      wished: model.request.arc.find((w) => sameAt(w, slot))?.fade ?? 0,
      overlay: laid?.overlay ?? null,
      reading: laid ? readOver(laid.overlay, slot.place, openChart.settings.weights) : null,
      locked: model.request.locks.some((l) => sameAt(l, slot)),
      was: laid?.was ?? null,
    }
  })

/** The steps with a planned route over them, or with none. */
export const plannedSteps = (
  model: RouteModel,
  openChart: OpenChart,
  route: RouteReport | null,
): readonly ShownStep[] =>
  shown(model, openChart, (slot) => {
    // What is locked is known, also where no route keeps to the rules.
    const step = route ? route.steps.find((s) => sameAt(s, slot)) : model.plan.locks.find((l) => sameAt(l, slot))
    const read = step ? readOverlay(step.overlay) : null
    return read?.ok ? { overlay: read.value, was: null } : null
  })

/** The steps with a kept route over them: matched anew to the chords that stand there now. */
export const keptSteps = (model: RouteModel, openChart: OpenChart, row: RouteRow): readonly ShownStep[] =>
  shown(model, openChart, (slot) => {
    const step = stepAt(row.steps, slot)
    const read = step && step.overlay !== null ? readOverlay(step.overlay) : null
    if (!step || !read?.ok) return null
    const stood = step.chord === undefined ? null : readChord(step.chord)
    const was = stood?.ok ? transposeChord(stood.value, openChart.instrument.written).symbol : slot.chord.symbol
    return {
      overlay: transposeOverlay(read.value, openChart.instrument.written),
      was: was === slot.chord.symbol ? null : was,
    }
  })

/** The chain in view, by its number in the list; null where the route in hand is. With nothing in hand it is the first. */
export const pickInView = (address: Address, openChart: OpenChart): number | null =>
  address.pick ?? (openChart.inHand === null ? 0 : null)

/** The steps of what is in view: the route in hand, or the chain that is picked. */
export const stepsInView = (
  model: RouteModel,
  address: Address,
  kept: Kept,
  openChart: OpenChart,
  route: RouteReport | null,
): readonly ShownStep[] =>
  pickInView(address, openChart) === null && kept.route
    ? keptSteps(model, openChart, kept.route)
    : plannedSteps(model, openChart, route)

/** What a chip between two steps says: which way the set goes, and what is held or how far it goes. */
const chipText = (a: Overlay, b: Overlay): string => {
  const { common, motion } = seamBetween(a, b)
  if (a.set === b.set) return '='
  const arrow = { 1: '↑', 0: '', [-1]: '↓' }[directionBetween(a.set, b.set)]
  if (common.length > 0) return `${arrow}=${common.length}`
  return motion === 1 ? `${arrow}½` : motion === 2 ? `${arrow}1` : arrow || '·'
}

/** The steps as the band draws them. */
export const bandOf = (steps: readonly ShownStep[]): readonly BandStep[] => {
  const joints = steps.slice(1).map((b, i) => {
    const a = steps[i]?.overlay
    return { direction: a && b.overlay ? directionBetween(a.set, b.overlay.set) : 0 } as const
  })
  const turns = turnsOf(joints)
  return steps.map(({ slot, wished, overlay, reading, locked }, i): BandStep => {
    const next = steps[i + 1]
    const { bar, beat, beats, chord, carries } = slot
    return {
      ...{ bar, beat, beats, wished, reading, locked },
      carries: carries && overlay !== null,
      chord: chord.symbol,
      overlay: overlay?.name ?? null,
      seam: overlay && next?.overlay && !next.slot.carries ? chipText(overlay, next.overlay) : null,
      turns: turns[i] ?? false,
    }
  })
}
