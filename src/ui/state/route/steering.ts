import {
  type At,
  type Giving,
  giveWayIn,
  handLaid,
  type KeptStep,
  markByHand,
  type RecipePlace,
  type RouteRequest,
  readOverlay,
  reverse,
  type Slot,
  sameAt,
  slipOverlay,
  spotStart,
  transposeOverlay,
  withPlaces,
} from '../../../core/index.ts'
import { $address, choose, go } from '../address/address.ts'
import { $kept } from '../kept/kept.ts'
import { say } from '../page/notices.ts'
import { changeSteps, layNamed, takeChain } from '../tune/in-hand.ts'
import { $openChart, type OpenChart } from '../tune/open-chart.ts'
import { movePlan, type PlanWords, readPlan, writePlan } from './plan-words.ts'
import { $planning } from './planning.ts'
import { pickInView, type RouteModel, routeModel, type ShownStep, stepsInView } from './route-model.ts'
import { concertSteps } from './routes.ts'

/** The model as it stands now, in the browser. */
export const modelNow = (): { readonly model: RouteModel; readonly openChart: OpenChart } | null => {
  const [address, kept, openChart] = [$address.get(), $kept.get(), $openChart.get()]
  const model = address && kept && openChart ? routeModel(address, openChart, kept.route) : null
  return model && openChart ? { model, openChart } : null
}

/** What of a plan was asked, as it is told when it is taken back. */
const ASKED: Readonly<Partial<Record<keyof PlanWords, string>>> = {
  arc: 'how far out a step is to be',
  preset: 'the shape',
  locks: 'a lock',
  bans: 'what may not stand there',
  cuts: 'the split',
  joins: 'the join',
  windows: 'a window',
  families: 'the kinds',
  eachSeries: 'each kind once',
}
const askedIn = (change: PlanWords): string => {
  const keys = Object.keys(change) as (keyof PlanWords)[]
  const [key] = keys
  return keys.length === 1 && key ? (ASKED[key] ?? 'a rule of the route') : 'what was asked of the route'
}

/** Asks for a changed plan, in written pitch. The first route of the new list comes into view. */
export const setPlan = (change: PlanWords): void => {
  const now = modelNow()
  if (!now) return
  const plan = { ...now.model.plan, locks: planAsked()?.locks ?? [], ...change }
  const words = writePlan(movePlan(plan, reverse(now.openChart.instrument.written)))
  choose(askedIn(change), { plan: words, pick: 0 }, 'arc' in change && !('preset' in change) ? 'arc' : null)
}

/** What was asked in the address alone, in written pitch, without what was laid by hand. */
const planAsked = (): PlanWords | null => {
  const [address, openChart] = [$address.get(), $openChart.get()]
  return address && openChart ? movePlan(readPlan(address.plan), openChart.instrument.written) : null
}

/** A request's own part of a plan: its arc stays a ready shape with wishes over it, what was laid by hand stays there. */
const ofRequest = ({ arc: _, locks, ...request }: RouteRequest): PlanWords => {
  const hand = handLaidHere()
  return { ...request, locks: locks.filter((l) => !hand.some((h) => sameAt(h, l))) }
}
const handLaidHere = () => handLaid($kept.get()?.route?.steps ?? [])

const without = <A extends At>(all: readonly A[], at: At): readonly A[] => all.filter((a) => !sameAt(a, at))
const here = ({ bar, beat }: At): At => ({ bar, beat })

export const setWish = (at: At, fade: number): void => {
  const arc = modelNow()?.model.plan.arc ?? []
  setPlan({ arc: [...without(arc, at), { ...here(at), fade: Math.max(0, Math.min(100, Math.round(fade))) }] })
}

/** Moves the wish at the step in view. */
export const nudgeWish = (by: number): void => {
  const model = modelNow()?.model
  if (!model?.current) return
  const { current, request } = model
  setWish(current, (request.arc.find((w) => sameAt(w, current))?.fade ?? 0) + by)
}

/** The steps of the route in view, planned or kept; null where there is none. */
export const inView = (): { readonly steps: readonly ShownStep[]; readonly model: RouteModel } | null => {
  const [now, address, kept] = [modelNow(), $address.get(), $kept.get()]
  if (!now || !address || !kept) return null
  const route = $planning.get().routes[pickInView(address, now.openChart) ?? 0] ?? null
  return { steps: stepsInView(now.model, address, kept, now.openChart, route), model: now.model }
}

/** The step one stands on. */
export const stepInView = (): ShownStep | null => {
  const view = inView()
  const current = view?.model.current
  return (current && view.steps.find((s) => s.slot.index === current.index)) || null
}

/** Lays an overlay (written pitch) by hand at a step: a planning then keeps it. */
export const layAtStep = (name: string): void => {
  const [address, openChart, read] = [$address.get(), $openChart.get(), readOverlay(name)]
  if (!address || !openChart || !read.ok) return
  // The chains stay in view: they are planned anew round what was laid.
  if (pickInView(address, openChart) !== null) go({ pick: 0 })
  layNamed(transposeOverlay(read.value, reverse(openChart.instrument.written)).name)
}

/** Lays by hand what the step in view has, so that a planning keeps it; or leaves it to the planning again. */
export const toggleLock = (): void => {
  const step = stepInView()
  if (!step?.overlay) return
  if (!step.locked) return layAtStep(step.overlay.name)
  const locks = planAsked()?.locks ?? []
  if (locks.some((l) => sameAt(l, step.slot))) setPlan({ locks: without(locks, step.slot) })
  else changeSteps((steps) => markByHand(steps, step.slot, false))
}

/** Bans what the step in view has, there. */
export const banHere = (): void => {
  const step = stepInView()
  const plan = modelNow()?.model.plan
  if (!step?.overlay || !plan) return
  const { overlay, slot } = step
  if (step.locked) changeSteps((steps) => markByHand(steps, slot, false))
  setPlan({
    bans: [...plan.bans, { ...here(slot), overlay: overlay.name }],
    locks: without(planAsked()?.locks ?? [], slot),
  })
}

export const banDevice = (device: string): void =>
  setPlan({ bans: [...(modelNow()?.model.plan.bans ?? []), { device }] })

/** Cuts the step in view in two, the longer part first. */
export const splitHere = (): void => {
  const model = modelNow()?.model
  const slot = model?.current
  if (!slot || slot.beats < 2) return say('It is too short to be split.')
  setPlan({
    cuts: [
      ...model.plan.cuts,
      { bar: slot.bar, beat: spotStart(model.slots, slot), at: slot.beat + Math.ceil(slot.beats / 2) },
    ],
  })
}

/** Joins the step in view to the one before: a cut is taken back, or it goes on with that step's overlay. */
export const joinHere = (): void => {
  const model = modelNow()?.model
  const slot = model?.current
  if (!slot || slot.index === 0) return
  const { cuts, joins } = model.plan
  const cut = cuts.find((c) => c.bar === slot.bar && c.at === slot.beat)
  if (cut) setPlan({ cuts: cuts.filter((c) => c !== cut) })
  else if (joins.some((j) => sameAt(j, slot))) setPlan({ joins: without(joins, slot) })
  else setPlan({ joins: [...joins, here(slot)], locks: without(planAsked()?.locks ?? [], slot) })
}

/** Moves the whole route in view by a half step, into the hand. */
export const moveRoute = (by: 1 | -1): void => {
  const view = inView()
  const openChart = $openChart.get()
  if (!view || !openChart) return
  const steps = view.steps.flatMap(({ overlay, slot }): KeptStep[] => {
    const { bar, beat, beats, chord, carries } = slot
    return overlay
      ? [{ bar, beat, beats, chord: chord.symbol, carries, overlay: slipOverlay(overlay, by, []).name }]
      : []
  })
  void takeChain('Moved by a half step', concertSteps(steps, openChart))
  go({ pick: null })
}

export const applyRecipe = (places: readonly RecipePlace[]): void => {
  const model = modelNow()?.model
  if (model) setPlan(ofRequest(withPlaces(model.request, places)))
}

export const applyGivings = (givings: readonly Giving[]): void => {
  const model = modelNow()?.model
  if (!model) return
  setPlan(ofRequest(givings.reduce((so, giving) => giveWayIn(so, giving, model.slots), model.request)))
}

/** Brings a chain of the list into view, or the route in hand. */
export const pickRoute = (pick: number | null): void => go({ pick })

/** The next or previous of the ranked chains; before the first stands the route in hand. */
export const movePick = (by: 1 | -1): void => {
  const [address, { routes }] = [$address.get(), $planning.get()]
  if (!address || routes.length === 0) return
  const openChart = $openChart.get()
  const inHand = openChart !== null && openChart.inHand !== null
  const at = (openChart && pickInView(address, openChart)) ?? -1
  const to = Math.max(inHand ? -1 : 0, Math.min(routes.length - 1, at + by))
  pickRoute(to < 0 ? null : to)
}

export const goToSlot = ({ bar, beat }: Slot): void => go({ bar, beat, over: null, sounds: null, home: null })

/** One step on or back, also within a chord that is cut; tells whether the Route view is in sight. */
export const moveStep = (by: number): boolean => {
  if ($address.get()?.view !== 'route') return false
  const model = modelNow()?.model
  const slots = model?.slots ?? []
  const slot = slots[Math.max(0, Math.min(slots.length - 1, (model?.current?.index ?? 0) + by))]
  if (slot) goToSlot(slot)
  return true
}
