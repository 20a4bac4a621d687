import {
  type At,
  type Giving,
  giveWayIn,
  type RecipePlace,
  type RouteRequest,
  reverse,
  type Slot,
  sameAt,
  slipOverlay,
  spotStart,
  transposeChord,
  transposeOverlay,
  withPlaces,
} from '../../core/index.ts'
import { overlayPhrase } from '../../sound/sound.ts'
import { deskNow, hearOverlay, keep } from './actions.ts'
import type { Desk } from './desk.ts'
import { hear } from './hearing.ts'
import { $kept } from './kept.ts'
import { say } from './notices.ts'
import { $place, go } from './place.ts'
import { changePlan } from './plan-history.ts'
import { movePlan, type PlanWords, writePlan } from './plan-words.ts'
import { $planning } from './planning.ts'
import { type RouteModel, routeModel, type ShownStep, stepsInView } from './route-model.ts'
import { keepRoute } from './routes.ts'

/** The model as it stands now, in the browser. */
export const modelNow = (): { readonly model: RouteModel; readonly desk: Desk } | null => {
  const [place, kept, desk] = [$place.get(), $kept.get(), deskNow()]
  const model = place && kept && desk ? routeModel(place, desk) : null
  return model && desk ? { model, desk } : null
}

/** Asks for a changed plan, in written pitch. The first route of the new list comes into view. */
export const setPlan = (change: PlanWords): void => {
  const now = modelNow()
  if (!now) return
  const plan = { ...now.model.plan, ...change }
  changePlan({ plan: writePlan(movePlan(plan, reverse(now.desk.instrument.written))), pick: 0, route: null })
}

/** A request's own part of a plan: its arc stays a ready shape with wishes over it. */
const ofRequest = ({ arc: _, ...request }: RouteRequest): PlanWords => request

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
  const [now, place, kept] = [modelNow(), $place.get(), $kept.get()]
  if (!now || !place || !kept) return null
  const route = $planning.get().routes[place.pick] ?? null
  return { steps: stepsInView(now.model, place, kept, now.desk, route), model: now.model }
}

const stepInView = (): ShownStep | null => {
  const view = inView()
  const current = view?.model.current
  return (current && view.steps.find((s) => s.slot.index === current.index)) || null
}

export const lockAs = (at: At, overlay: string): void => {
  const locks = modelNow()?.model.plan.locks ?? []
  setPlan({ locks: [...without(locks, at), { ...here(at), overlay }] })
}

/** Locks the step in view with what it has, or frees it. */
export const turnLock = (): void => {
  const step = stepInView()
  const locks = modelNow()?.model.plan.locks ?? []
  if (!step?.overlay) return
  if (step.locked) setPlan({ locks: without(locks, step.slot) })
  else lockAs(step.slot, step.overlay.name)
}

/** Bans what the step in view has, there. */
export const banHere = (): void => {
  const step = stepInView()
  const plan = modelNow()?.model.plan
  if (!step?.overlay || !plan) return
  const { overlay, slot } = step
  setPlan({ bans: [...plan.bans, { ...here(slot), overlay: overlay.name }], locks: without(plan.locks, slot) })
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
  else setPlan({ joins: [...joins, here(slot)], locks: without(model.plan.locks, slot) })
}

/** Moves the whole route in view by a half step: every step is locked where it then is. */
export const moveRoute = (by: 1 | -1): void => {
  const view = inView()
  if (!view) return
  const locks = view.steps.flatMap(({ overlay, slot, reading }) =>
    overlay && reading ? [{ ...here(slot), overlay: slipOverlay(overlay, by, []).name }] : [],
  )
  setPlan({ locks })
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

export const pickRoute = (pick: number): void => go({ pick, route: null })

/** The next or previous of the ranked routes. */
export const movePick = (by: 1 | -1): void => {
  const [place, { routes }] = [$place.get(), $planning.get()]
  if (!place || routes.length === 0) return
  pickRoute(Math.max(0, Math.min(routes.length - 1, place.pick + by)))
}

export const goToSlot = ({ bar, beat }: Slot): void => go({ bar, beat, over: null, sounds: null, home: null })

/** One step on or back, also within a chord that is cut; tells whether the Route view is in sight. */
export const moveStep = (by: number): boolean => {
  if ($place.get()?.view !== 'route') return false
  const model = modelNow()?.model
  const slots = model?.slots ?? []
  const slot = slots[Math.max(0, Math.min(slots.length - 1, (model?.current?.index ?? 0) + by))]
  if (slot) goToSlot(slot)
  return true
}

/** On the Route view the step in view is heard over its chord; elsewhere the overlay. */
export const hearHere = (): void => {
  if ($place.get()?.view !== 'route') return hearOverlay()
  const [step, desk] = [stepInView(), deskNow()]
  if (!step?.overlay || !desk) return
  const back = reverse(desk.instrument.written)
  const { hearAs, hearTempo } = desk.settings
  const chord = transposeChord(step.slot.chord, back)
  void hear(overlayPhrase(transposeOverlay(step.overlay, back), chord, { as: hearAs, tempo: hearTempo }))
}

/** On the Route view the route in view is kept; elsewhere the overlay. */
export const keepHere = (): void => {
  const [place, desk] = [$place.get(), deskNow()]
  if (place?.view !== 'route') return keep()
  const route = $planning.get().routes[place.pick]
  if (route && desk && place.route === null) void keepRoute(route.title, route.steps, desk)
}
