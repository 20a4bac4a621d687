import { FAMILIES, type MaterialFamily } from '../material/catalogue.ts'
import type { Material } from '../material/material.ts'
import type { Overlay } from '../material/overlay.ts'
import { holds, rotate, shared } from '../pitch/pcset.ts'
import { EMPTY_SET, type PcSet } from '../pitch/units.ts'
import {
  type Candidate,
  candidatesOver,
  type FamilyName,
  type PairShape,
  type PentatonicNaming,
  PREFERRED_PENTATONIC,
  pairsOver,
} from './candidates.ts'
import { keyDistance } from './key-distance.ts'
import { type Lens, lensOf, type Measured, measure } from './lens.ts'
import { fadeKey, orderedBy } from './order.ts'
import { bluesPlace, type Place } from './role.ts'
import { classicCandidates, type LaidClassic, rarityOf, scoreOfUse, wishedFade } from './use.ts'
import type { Weights } from './weights.ts'

/** An overlay's place in a ranking, before it is spelled. */
export interface Ranked<C extends Candidate = Candidate> {
  readonly candidate: C
  readonly measured: Measured
  readonly overlay: () => Overlay
  /** How likely a teacher would show it here, to the thousandth. */
  readonly use: number
  /** Why, where the table of classics knows it. */
  readonly classic: string | null
}

export const SORTS = ['use', 'fade', 'landing', 'key'] as const

export interface OverlayFilter {
  readonly families: readonly FamilyName[]
  /** Pitch classes that must, and must not, be there. */
  readonly hold: PcSet
  readonly avoid: PcSet
  readonly fadeMin: number
  /** Null for the usual limit: none, but a fade of 60 where landing decides. */
  readonly fadeMax: number | null
  readonly landingMin: number
  /** Key distance at most, 0..6; what has no key then falls out. Null for any. */
  readonly keyMax: number | null
  /** Whether it must hold all guide tones, or must not. */
  readonly states: 'chord' | 'vague' | null
  /** A part of its name, ASCII, in any case. */
  readonly text: string
  readonly sort: (typeof SORTS)[number]
}

export const ANYTHING: OverlayFilter = {
  families: Object.keys(FAMILIES) as MaterialFamily[],
  hold: EMPTY_SET,
  avoid: EMPTY_SET,
  fadeMin: 0,
  fadeMax: null,
  landingMin: 0,
  keyMax: null,
  states: null,
  text: '',
  sort: 'use',
}

const NO_KEY = 7

/** Steps to the home scale's key for any set, worked out once for each set; 7 where it has none. */
export const keyStepsFrom = (place: Place): ((set: PcSet) => number) => {
  const home = rotate(place.home.first.set, place.chord.root.pc)
  const known = new Map<PcSet, number>()
  return (set) => {
    const before = known.get(set)
    if (before !== undefined) return before
    const steps = keyDistance(home, set)?.steps ?? NO_KEY
    known.set(set, steps)
    return steps
  }
}

/** A ranking by landing without a limit on fade would only show side-slips. */
const LANDING_FADE_MAX = 60
export const fadeLimit = ({ fadeMax, sort }: Pick<OverlayFilter, 'fadeMax' | 'sort'>): number =>
  fadeMax ?? (sort === 'landing' ? LANDING_FADE_MAX : 100)

const within = (wish: OverlayFilter, r: Measured): boolean =>
  r.fade >= wish.fadeMin && r.fade <= fadeLimit(wish) && (wish.landingMin === 0 || (r.landing ?? 0) >= wish.landingMin)

export const guidesOver = ({ chord }: Place): PcSet => rotate(chord.quality.guideSet, chord.root.pc)

const named = (c: Candidate, text: string): boolean => c.overlay().name.toLowerCase().includes(text)

/** Thousandths of use, those of most use first. */
const useKey = (use: number): number => Math.round(1000 * (1000 - use))

const inOrder = <C extends Candidate>(
  kept: readonly Ranked<C>[],
  sort: OverlayFilter['sort'],
  keySteps: (set: PcSet) => number,
): readonly Ranked<C>[] => {
  const at = (i: number): Ranked<C> => kept[i] as Ranked<C>
  const byFade = orderedBy(Uint32Array.from(kept.keys()), (i) => fadeKey(at(i).measured))
  const order = {
    fade: () => byFade,
    use: () => orderedBy(byFade, (i) => useKey(at(i).use)),
    landing: () => orderedBy(byFade, (i) => 100 - (at(i).measured.landing ?? 0)),
    key: () => orderedBy(byFade, (i) => keySteps(at(i).candidate.set)),
  }
  return Array.from(order[sort](), at)
}

const keeper = (place: Place, wish: OverlayFilter, keySteps: (set: PcSet) => number): ((c: Candidate) => boolean) => {
  const guides = guidesOver(place)
  const text = wish.text.trim().toLowerCase()
  return (c) => {
    if ((c.set & wish.hold) !== wish.hold || shared(c.set, wish.avoid) !== 0) return false
    if (wish.states !== null && holds(c.set, guides) !== (wish.states === 'chord')) return false
    if (wish.keyMax !== null && keySteps(c.set) > wish.keyMax) return false
    return text === '' || named(c, text)
  }
}

/** Measures candidates over a place; under a blues scale named as such over a dominant, with its own blue notes. */
export const measurer = (place: Place, weights: Weights): ((c: Candidate) => Measured) => {
  const plain = lensOf(place, weights)
  const blues = new Map<number, Lens>()
  const lensFor = ({ family, root }: Candidate): Lens => {
    if (family !== 'blues' || root === null) return plain
    const known = blues.get(root) ?? lensOf(bluesPlace(place, root), weights)
    blues.set(root, known)
    return known
  }
  return (c) => measure(c.set, c.passing, lensFor(c), place.next !== null, weights)
}

/** What one set is called once: pairs apart from all else. */
const setName = ({ family, set }: Candidate): number => (family === 'pair' ? -set : set)

/**
 * Of each set one candidate, under its plainest name: that of the table of classics, else of the commonest shape, else
 * the name the player wants for pentatonics, else on the chord's own root. `also` counts the others.
 */
const eachSetOnce = <C extends Candidate>(
  candidates: readonly C[],
  place: Place,
  classics: ReadonlyMap<number, Candidate>,
  naming: PentatonicNaming,
): readonly C[] => {
  const root = place.chord.root.pc
  const isClassic = (c: C): boolean => {
    const known = classics.get(setName(c))
    return known !== undefined && known.root === c.root && known.material === c.material
  }
  const plainness = (c: C): number =>
    (isClassic(c) ? -100 : 0) +
    rarityOf(c) +
    (c.material?.name === PREFERRED_PENTATONIC[naming] ? -0.5 : 0) +
    (c.root === root ? -0.25 : 0)
  const chosen = new Map<number, { c: C; plain: number; also: number }>()
  for (const c of candidates) {
    const name = setName(c)
    const before = chosen.get(name)
    const plain = plainness(c)
    if (!before) {
      chosen.set(name, { c, plain, also: c.also })
      continue
    }
    before.also++
    if (plain < before.plain) [before.c, before.plain] = [c, plain]
  }
  return Array.from(chosen.values(), ({ c, also }) => (also === c.also ? c : { ...c, also }))
}

/** Candidates that fit the wish (its families aside), measured and in order; by use, each set once. */
export const rankCandidates = <C extends Candidate>(
  candidates: readonly C[],
  place: Place,
  wish: OverlayFilter,
  weights: Weights,
  naming: PentatonicNaming = 'as minor',
): readonly Ranked<C>[] => {
  const measured = measurer(place, weights)
  const keySteps = keyStepsFrom(place)
  const keeps = keeper(place, wish, keySteps)
  const classics = new Map<number, LaidClassic>()
  if (wish.sort === 'use') for (const c of classicCandidates(place)) classics.set(setName(c), c)
  const wished = wishedFade(place, weights)
  const fitting = candidates.filter(keeps)
  const withoutBlue = place.blue === EMPTY_SET ? null : measurer({ ...place, blue: EMPTY_SET }, weights)
  const told = wish.sort === 'use' ? eachSetOnce(fitting, place, classics, naming) : fitting
  const kept: Ranked<C>[] = []
  for (const candidate of told) {
    const m = measured(candidate)
    if (!within(wish, m)) continue
    const classic = classics.get(setName(candidate))?.because ?? null
    // The tonic's blue notes are no colour for whatever else may hold them.
    const asColour = withoutBlue && classic === null && candidate.family !== 'blues' ? withoutBlue(candidate) : m
    const use = scoreOfUse(candidate, asColour, wished, classic !== null)
    kept.push({ candidate, measured: m, overlay: candidate.overlay, use, classic })
  }
  return inOrder(kept, wish.sort, keySteps)
}

/** The families a wish has, and by use the pairs of the table of classics beside the whole catalogue. */
const wishedOver = (place: Place, { families, sort }: OverlayFilter): readonly Candidate[] => {
  const all = candidatesOver(place, families)
  const whole = sort === 'use' && !families.includes('pair') && ANYTHING.families.every((f) => families.includes(f))
  return whole ? [...all, ...classicCandidates(place).filter((c) => c.family === 'pair')] : all
}

/**
 * The catalogue on twelve roots, in order: by use, what a teacher would show first; best first by fade (fewer rubs, then
 * fewer suspensions, then landing); or by landing.
 */
export const rankOverlays = (place: Place, wish: OverlayFilter, weights: Weights): readonly Ranked[] =>
  rankCandidates(wishedOver(place, wish), place, wish, weights)

export interface PairFilter extends OverlayFilter {
  /** Names of the two triads' materials in either order, or null for any. */
  readonly qualities: readonly [string, string] | null
  /** Semitones between the roots, 0..6, or null. */
  readonly distance: number | null
  /** True: no note shared; false: at least one; null: either. */
  readonly exclusive: boolean | null
}

const of = (a: Material, b: Material, [x, y]: readonly [string, string]): boolean =>
  (a.name === x && b.name === y) || (a.name === y && b.name === x)

const matches =
  (wish: PairFilter) =>
  ({ first, second, apart, exclusive }: PairShape): boolean => {
    if (wish.distance !== null && Math.min(apart, 12 - apart) !== wish.distance) return false
    if (wish.exclusive !== null && exclusive !== wish.exclusive) return false
    return wish.qualities === null || of(first, second, wish.qualities)
  }

/** Every pair of catalogue triads on twelve roots, ranked; two triads with the same notes are no pair. */
export const rankPairs = (place: Place, wish: PairFilter, weights: Weights): readonly Ranked[] =>
  rankCandidates(pairsOver(place, matches(wish)), place, wish, weights)
