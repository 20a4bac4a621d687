import { CHANGED_PENTATONICS } from '../material/changed.ts'
import { MATERIALS, type Material } from '../material/material.ts'
import { generatedRoot, type Overlay, placeOn } from '../material/overlay.ts'
import { rotate, shared } from '../pitch/pcset.ts'
import { type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import {
  type Candidate,
  candidatesOver,
  type FamilyName,
  once,
  type PentatonicNaming,
  PREFERRED_PENTATONIC,
} from '../reading/candidates.ts'
import { homeName, homeOverlay } from '../reading/home.ts'
import { lensOf, measure } from '../reading/lens.ts'
import type { Weights } from '../reading/weights.ts'
import { arcMiss, COLOUR_FADE, landingMiss, ROUTE_COSTS } from './costs.ts'
import { type Device, deviceName, deviceOver, formulaOf, pairFormula } from './device.ts'
import type { Ban, RouteRules } from './rules.ts'
import type { Slot } from './slots.ts'
import { goesHome } from './usual.ts'

/** Of a slot's pairs only so many are tried, the cheapest by themselves; the player is told. */
export const PAIRS_TRIED = 400

/** What a step could be, measured over its chord. */
export interface StepCandidate {
  readonly set: PcSet
  readonly overlay: () => Overlay
  readonly device: () => Device
  readonly fade: number
  readonly landing: number | null
  readonly rubs: number
  /** Put there by the player, whatever the rules. */
  readonly locked: boolean
  readonly arcMiss: number
  readonly landingMiss: number
  /** What its rubs cost here. */
  readonly rubCost: number
}

export const isColour = (c: StepCandidate): boolean => c.fade >= COLOUR_FADE

interface Placed {
  readonly material: Material
  readonly pc: PitchClass
}

type Placings = ReadonlyMap<PcSet, readonly Placed[]>

/** Every placing of the families' materials, by the notes they have. */
const placings = (families: readonly FamilyName[]): Placings => {
  const materials = [
    ...MATERIALS.filter((m) => families.includes(m.family)),
    ...(families.includes('changed') ? CHANGED_PENTATONICS : []),
  ]
  const groups = new Map<PcSet, Placed[]>()
  for (const material of materials)
    for (let pc = 0; pc < 12; pc++) {
      const set = rotate(material.set, pc)
      const group = groups.get(set)
      if (group) group.push({ material, pc: pitchClass(pc) })
      else groups.set(set, [{ material, pc: pitchClass(pc) }])
    }
  return groups
}

/**
 * The name a set goes by over a root: its mode on that root, else the pentatonic as the player names it, else the first
 * of the catalogue; of a set that repeats, the root next upward. So one shape keeps one name along a route.
 */
const namedOver = (group: readonly Placed[], root: PitchClass, naming: PentatonicNaming): Placed => {
  const own = group.find((p) => p.material.family === 'mode' && p.pc === root)
  if (own) return own
  const material = (group.find((p) => p.material.name === PREFERRED_PENTATONIC[naming]) ?? (group[0] as Placed))
    .material
  const up = (p: Placed): number => (p.pc - root + 12) % 12
  return group.filter((p) => p.material === material).sort((a, b) => up(a) - up(b))[0] as Placed
}

/** What could be laid over a slot, before it is measured; spelled only where it is asked for. */
export interface Unmeasured {
  readonly set: PcSet
  readonly passing: number | null
  readonly device: () => Device
  readonly overlay: () => Overlay
}

const spelled = (set: PcSet, passing: number | null, overlay: () => Overlay, slot: Slot): Unmeasured => ({
  set,
  passing,
  overlay,
  device: () => deviceOver(overlay(), slot.chord),
})

/** A pair's device is told without spelling it. */
const pairDevice = ({ shape, root }: Candidate, slot: Slot): Partial<Pick<Unmeasured, 'device'>> => {
  if (shape === null || root === null) return {}
  return { device: once(() => ({ formula: pairFormula(shape), up: pitchClass(root - slot.chord.root.pc) })) }
}

const placedOver = ({ material, pc }: Placed, set: PcSet, slot: Slot): Unmeasured => ({
  set,
  passing: material.passing === null ? null : (pc + material.passing) % 12,
  device: once(() => ({ formula: formulaOf(material), up: pitchClass(pc - slot.chord.root.pc) })),
  overlay: once(() => placeOn(generatedRoot(pc, homeOverlay(slot.place.home.first).notes, material), material)),
})

const measuring = (slot: Slot, rules: RouteRules, weights: Weights): ((c: Unmeasured) => StepCandidate) => {
  const wished = rules.arc[slot.index] ?? null
  const perRub = rules.usual && goesHome(slot) ? ROUTE_COSTS.rub : 0
  const lens = lensOf(slot.place, weights)
  return (c) => {
    const { fade, landing, rubs } = measure(c.set, c.passing, lens, slot.place.next !== null, weights)
    const { set, overlay, device } = c
    const own = { arcMiss: arcMiss(fade, wished), landingMiss: landingMiss(fade, landing) }
    return {
      set,
      overlay,
      device,
      fade,
      landing,
      rubs,
      locked: false,
      arcMiss: own.arcMiss,
      landingMiss: own.landingMiss,
      rubCost: perRub * rubs,
    }
  }
}

const keeps = (slot: Slot, rules: RouteRules): ((c: StepCandidate) => boolean) => {
  const [hold, avoid] = [rotate(rules.hold, slot.chord.root.pc), rotate(rules.avoid, slot.chord.root.pc)]
  const windows = rules.windows.filter((w) => w.step === slot.index)
  const least = Math.max(rules.fadeMin, ...windows.map((w) => w.least))
  const most = Math.min(rules.fadeMax, ...windows.map((w) => w.most))
  return (c) =>
    (c.set & hold) === hold &&
    shared(c.set, avoid) === 0 &&
    c.fade >= least &&
    c.fade <= most &&
    (c.rubs === 0 || c.fade >= rules.rubsFrom) &&
    (rules.landingMin === 0 || (c.landing ?? 100) >= rules.landingMin)
}

const isBanned = (c: StepCandidate, slot: Slot, bans: readonly Ban[]): boolean =>
  bans.some(
    (b) =>
      (b.step === null || b.step === slot.index) &&
      (b.overlay === null || b.overlay.set === c.set) &&
      (b.device === null || b.device === deviceName(c.device())),
  )

/** The families' sets with their slips of the home scale, and their pairs, each set once and each under one name. */
interface Offered {
  readonly singles: readonly Unmeasured[]
  readonly pairs: readonly Unmeasured[]
}

/** What the families offer, remembered: it is the same over every chord of one root and home scale. */
export interface Offer {
  readonly groups: Placings
  readonly known: Map<string, Offered>
}

export const offerOf = (families: readonly FamilyName[]): Offer => ({ groups: placings(families), known: new Map() })

const offeredOver = (slot: Slot, { families, naming }: RouteRules, { groups }: Offer): Offered => {
  const seen = new Set<PcSet>(groups.keys())
  const more = (family: 'slip' | 'pair') =>
    families.includes(family)
      ? candidatesOver(slot.place, [family])
          .filter((c) => !seen.has(c.set) && seen.add(c.set))
          .map((c) => ({ ...spelled(c.set, c.passing, c.overlay, slot), ...pairDevice(c, slot) }))
      : []
  const placed = [...groups].map(([set, group]) => placedOver(namedOver(group, slot.chord.root.pc, naming), set, slot))
  return { singles: [...placed, ...more('slip')], pairs: more('pair') }
}

const offered = (slot: Slot, rules: RouteRules, offer: Offer): Offered => {
  const key = `${slot.chord.root.pc} ${homeName(slot.place.home.first)}`
  const known = offer.known.get(key) ?? offeredOver(slot, rules, offer)
  offer.known.set(key, known)
  return known
}

/** What a step costs by itself. */
export const ownCost = (c: StepCandidate): number => c.arcMiss + c.landingMiss + c.rubCost

const byOwnCost = (a: StepCandidate, b: StepCandidate): number => ownCost(a) - ownCost(b)

/**
 * What a slot could carry under the rules. A lock leaves only its overlay, which need not keep to the rules; a slot that
 * carries on has what the slot before has, measured over its own chord.
 */
export const stepCandidates = (
  slot: Slot,
  before: readonly StepCandidate[] | null,
  rules: RouteRules,
  weights: Weights,
  offer: Offer,
): readonly StepCandidate[] => {
  const measured = measuring(slot, rules, weights)
  const lock = rules.locks.find((l) => l.step === slot.index)
  if (lock) {
    const { overlay } = lock
    return [{ ...measured(spelled(overlay.set, overlay.passing, () => overlay, slot)), locked: true }]
  }
  const kept = keeps(slot, rules)
  const fits = (c: StepCandidate): boolean => kept(c) && !isBanned(c, slot, rules.bans)
  if (slot.carries && before) {
    const carried = before.map((c) => ({
      ...measured(spelled(c.set, c.overlay().passing, c.overlay, slot)),
      locked: c.locked,
    }))
    return carried.filter((c) => c.locked || fits(c))
  }
  const { singles, pairs } = offered(slot, rules, offer)
  const fitting = pairs.map(measured).filter(fits).sort(byOwnCost).slice(0, PAIRS_TRIED)
  return [...singles.map(measured).filter(fits), ...fitting]
}
