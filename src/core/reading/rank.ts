import { FAMILIES, type MaterialFamily } from '../material/catalogue.ts'
import { CHANGED_PENTATONICS } from '../material/changed.ts'
import { MATERIALS, type Material } from '../material/material.ts'
import { generatedRoot, type Overlay, pairOf, placeOn, slipOverlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { rotate, shared, union } from '../pitch/pcset.ts'
import { EMPTY_SET, type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import { homeOverlay } from './home.ts'
import { lensOf, type Measured, measure } from './lens.ts'
import type { Place } from './role.ts'
import type { Weights } from './weights.ts'

/** An overlay's place in a ranking, before it is spelled. */
export interface Ranked {
  readonly measured: Measured
  readonly overlay: () => Overlay
}

export const FAMILY_NAMES = [...(Object.keys(FAMILIES) as MaterialFamily[]), 'slip', 'changed'] as const
export type FamilyName = (typeof FAMILY_NAMES)[number]

export interface Wish {
  readonly families: readonly FamilyName[]
  /** Pitch classes that must, and must not, be there. */
  readonly hold: PcSet
  readonly avoid: PcSet
  readonly fadeMin: number
  /** Null for the usual limit: none, but a fade of 60 where landing decides. */
  readonly fadeMax: number | null
  readonly landingMin: number
  readonly sort: 'fade' | 'landing'
}

export const ANYTHING: Wish = {
  families: Object.keys(FAMILIES) as MaterialFamily[],
  hold: EMPTY_SET,
  avoid: EMPTY_SET,
  fadeMin: 0,
  fadeMax: null,
  landingMin: 0,
  sort: 'fade',
}

const byFade = (a: Measured, b: Measured): number =>
  a.fade - b.fade || a.rubs - b.rubs || a.suspensions - b.suspensions || (b.landing ?? 0) - (a.landing ?? 0)
const byLanding = (a: Measured, b: Measured): number => (b.landing ?? 0) - (a.landing ?? 0) || byFade(a, b)

/** A ranking by landing without a limit on fade would only show side-slips. */
const LANDING_FADE_MAX = 60
const fadeLimit = ({ fadeMax, sort }: Wish): number => fadeMax ?? (sort === 'landing' ? LANDING_FADE_MAX : 100)

const within = (wish: Wish, r: Measured): boolean =>
  r.fade >= wish.fadeMin && r.fade <= fadeLimit(wish) && (wish.landingMin === 0 || (r.landing ?? 0) >= wish.landingMin)

interface Candidate {
  readonly set: PcSet
  readonly passing: number | null
  readonly overlay: () => Overlay
}

const rank = (candidates: readonly Candidate[], place: Place, wish: Wish, weights: Weights): readonly Ranked[] => {
  const lens = lensOf(place, weights)
  const kept: Ranked[] = []
  for (const c of candidates) {
    if ((c.set & wish.hold) !== wish.hold || shared(c.set, wish.avoid) !== 0) continue
    const measured = measure(c.set, c.passing, lens, place.next !== null, weights)
    if (within(wish, measured)) kept.push({ measured, overlay: c.overlay })
  }
  const order = wish.sort === 'landing' ? byLanding : byFade
  return kept.sort((a, b) => order(a.measured, b.measured))
}

const placedOn = (material: Material, pc: PitchClass, home: readonly Note[]): Candidate => ({
  set: rotate(material.set, pc),
  passing: material.passing === null ? null : (pc + material.passing) % 12,
  overlay: () => placeOn(generatedRoot(pc, home, material), material),
})

/** Roots upward from the chord's own, so that equal ranks begin at home. */
const rootsFrom = (place: Place): readonly PitchClass[] =>
  Array.from({ length: 12 }, (_, up) => pitchClass(place.chord.root.pc + up))

/** Every slip of the home material, half steps up and down to the tritone. */
const slips = (home: Overlay): readonly Candidate[] =>
  [-6, -5, -4, -3, -2, -1, 1, 2, 3, 4, 5].map((n) => ({
    set: rotate(home.set, n),
    passing: null,
    overlay: () => slipOverlay(home, n, home.notes),
  }))

/**
 * The catalogue on twelve roots, best first by fade (fewer rubs, then fewer suspensions, then landing) or by landing.
 */
export const rankOverlays = (place: Place, wish: Wish, weights: Weights): readonly Ranked[] => {
  const home = homeOverlay(place.home.first)
  const { families } = wish
  const materials = [
    ...MATERIALS.filter((m) => families.includes(m.family)),
    ...(families.includes('changed') ? CHANGED_PENTATONICS : []),
  ]
  const roots = rootsFrom(place)
  const candidates = materials.flatMap((m) => roots.map((pc) => placedOn(m, pc, home.notes)))
  return rank([...candidates, ...(families.includes('slip') ? slips(home) : [])], place, wish, weights)
}

export interface PairWish extends Wish {
  /** Names of the two triads' materials in either order, or null for any. */
  readonly qualities: readonly [string, string] | null
  /** Semitones between the roots, 0..6, or null. */
  readonly distance: number | null
  /** True: no note shared; false: at least one; null: either. */
  readonly exclusive: boolean | null
}

const TRIADS = MATERIALS.filter((m) => m.family === 'triad')

const matches = (wish: PairWish, a: Material, b: Material, distance: number, exclusive: boolean): boolean => {
  if (wish.distance !== null && distance !== wish.distance) return false
  if (wish.exclusive !== null && exclusive !== wish.exclusive) return false
  if (wish.qualities === null) return true
  const [x, y] = wish.qualities
  return (a.name === x && b.name === y) || (a.name === y && b.name === x)
}

/** Every pair of catalogue triads on twelve roots, ranked; two triads with the same notes are no pair. */
export const rankPairs = (place: Place, wish: PairWish, weights: Weights): readonly Ranked[] => {
  const home = homeOverlay(place.home.first).notes
  const triads = rootsFrom(place).flatMap((pc) => TRIADS.map((m) => ({ pc, material: m, set: rotate(m.set, pc) })))
  const candidates: Candidate[] = []
  for (const [i, a] of triads.entries())
    for (let j = i + 1; j < triads.length; j++) {
      const b = triads[j]
      if (!b || a.set === b.set) continue
      const apart = pitchClass(b.pc - a.pc)
      if (!matches(wish, a.material, b.material, Math.min(apart, 12 - apart), shared(a.set, b.set) === 0)) continue
      const overlay = () =>
        pairOf(
          placeOn(generatedRoot(a.pc, home, a.material), a.material),
          placeOn(generatedRoot(b.pc, home, b.material), b.material),
        )
      candidates.push({ set: union(a.set, b.set), passing: null, overlay })
    }
  return rank(candidates, place, wish, weights)
}
