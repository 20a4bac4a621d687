import { FAMILIES, type MaterialFamily } from '../material/catalogue.ts'
import type { Material } from '../material/material.ts'
import type { Overlay } from '../material/overlay.ts'
import { holds, rotate, shared } from '../pitch/pcset.ts'
import { EMPTY_SET, type PcSet } from '../pitch/units.ts'
import { type Candidate, candidatesOver, type FamilyName, type PairShape, pairsOver } from './candidates.ts'
import { keyDistance } from './key-distance.ts'
import { type Lens, lensOf, type Measured, measure } from './lens.ts'
import type { Place } from './role.ts'
import type { Weights } from './weights.ts'

/** An overlay's place in a ranking, before it is spelled. */
export interface Ranked<C extends Candidate = Candidate> {
  readonly candidate: C
  readonly measured: Measured
  readonly overlay: () => Overlay
}

export const SORTS = ['fade', 'landing', 'key'] as const

export interface Wish {
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

export const ANYTHING: Wish = {
  families: Object.keys(FAMILIES) as MaterialFamily[],
  hold: EMPTY_SET,
  avoid: EMPTY_SET,
  fadeMin: 0,
  fadeMax: null,
  landingMin: 0,
  keyMax: null,
  states: null,
  text: '',
  sort: 'fade',
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
export const fadeLimit = ({ fadeMax, sort }: Pick<Wish, 'fadeMax' | 'sort'>): number =>
  fadeMax ?? (sort === 'landing' ? LANDING_FADE_MAX : 100)

const within = (wish: Wish, r: Measured): boolean =>
  r.fade >= wish.fadeMin && r.fade <= fadeLimit(wish) && (wish.landingMin === 0 || (r.landing ?? 0) >= wish.landingMin)

export const guidesOver = ({ chord }: Place): PcSet => rotate(chord.quality.guideSet, chord.root.pc)

const named = (c: Candidate, text: string): boolean => c.overlay().name.toLowerCase().includes(text)

const byFade = (a: Measured, b: Measured): number =>
  a.fade - b.fade || a.rubs - b.rubs || a.suspensions - b.suspensions || (b.landing ?? 0) - (a.landing ?? 0)
const byLanding = (a: Measured, b: Measured): number => (b.landing ?? 0) - (a.landing ?? 0) || byFade(a, b)

const inOrder = <C extends Candidate>(kept: Ranked<C>[], sort: Wish['sort'], keySteps: (set: PcSet) => number) => {
  if (sort === 'landing') return kept.sort((a, b) => byLanding(a.measured, b.measured))
  if (sort === 'fade') return kept.sort((a, b) => byFade(a.measured, b.measured))
  return kept.sort((a, b) => keySteps(a.candidate.set) - keySteps(b.candidate.set) || byFade(a.measured, b.measured))
}

const keeper = (place: Place, wish: Wish, keySteps: (set: PcSet) => number): ((c: Candidate) => boolean) => {
  const guides = guidesOver(place)
  const text = wish.text.trim().toLowerCase()
  return (c) => {
    if ((c.set & wish.hold) !== wish.hold || shared(c.set, wish.avoid) !== 0) return false
    if (wish.states !== null && holds(c.set, guides) !== (wish.states === 'chord')) return false
    if (wish.keyMax !== null && keySteps(c.set) > wish.keyMax) return false
    return text === '' || named(c, text)
  }
}

/** Candidates that fit the wish (its families aside), measured and in order. */
export const rankCandidates = <C extends Candidate>(
  candidates: readonly C[],
  place: Place,
  wish: Wish,
  weights: Weights,
): readonly Ranked<C>[] => {
  const lens: Lens = lensOf(place, weights)
  const keySteps = keyStepsFrom(place)
  const keeps = keeper(place, wish, keySteps)
  const kept: Ranked<C>[] = []
  for (const candidate of candidates) {
    if (!keeps(candidate)) continue
    const measured = measure(candidate.set, candidate.passing, lens, place.next !== null, weights)
    if (within(wish, measured)) kept.push({ candidate, measured, overlay: candidate.overlay })
  }
  return inOrder(kept, wish.sort, keySteps)
}

/**
 * The catalogue on twelve roots, best first by fade (fewer rubs, then fewer suspensions, then landing) or by landing.
 */
export const rankOverlays = (place: Place, wish: Wish, weights: Weights): readonly Ranked[] =>
  rankCandidates(candidatesOver(place, wish.families), place, wish, weights)

export interface PairWish extends Wish {
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
  (wish: PairWish) =>
  ({ first, second, apart, exclusive }: PairShape): boolean => {
    if (wish.distance !== null && Math.min(apart, 12 - apart) !== wish.distance) return false
    if (wish.exclusive !== null && exclusive !== wish.exclusive) return false
    return wish.qualities === null || of(first, second, wish.qualities)
  }

/** Every pair of catalogue triads on twelve roots, ranked; two triads with the same notes are no pair. */
export const rankPairs = (place: Place, wish: PairWish, weights: Weights): readonly Ranked[] =>
  rankCandidates(pairsOver(place, matches(wish)), place, wish, weights)
