import { FAMILIES, type MaterialFamily } from '../material/catalogue.ts'
import { CHANGED_PENTATONICS } from '../material/changed.ts'
import { MATERIALS, type Material } from '../material/material.ts'
import { generatedRoot, givenBy, type Overlay, pairOf, placeAs, placeOn, slipOverlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { rotate, shared, union } from '../pitch/pcset.ts'
import { type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import { homeOverlay } from './home.ts'
import type { Place } from './role.ts'

export const FAMILY_NAMES = [...(Object.keys(FAMILIES) as MaterialFamily[]), 'slip', 'changed', 'pair'] as const
export type FamilyName = (typeof FAMILY_NAMES)[number]

/** Two triads as they come in a pair: the second's root lies `apart` semitones above the first's. */
export interface PairShape {
  readonly first: Material
  readonly second: Material
  readonly apart: number
  readonly exclusive: boolean
}

/** What could be laid over a chord, before it is spelled. */
export interface Candidate {
  readonly family: FamilyName
  /** Null for pairs and slips. */
  readonly material: Material | null
  readonly set: PcSet
  /** The root's pitch class; of a pair the first triad's, null for slips. */
  readonly root: PitchClass | null
  readonly passing: number | null
  readonly overlay: () => Overlay
  /** How many other names in its family the same notes have. */
  readonly also: number
  /** How a pair's triads lie to each other. */
  readonly shape: PairShape | null
}

/** What is made at the first asking and then remembered. */
export const once = <T>(make: () => T): (() => T) => {
  let made: T | undefined
  return () => {
    made ??= make()
    return made
  }
}

const placedOn = (family: FamilyName, material: Material, pc: PitchClass, given: Note | undefined): Candidate => ({
  family,
  material,
  set: rotate(material.set, pc),
  root: pc,
  passing: material.passing === null ? null : (pc + material.passing) % 12,
  overlay: once(() => placeAs(pc, given, material)),
  also: 0,
  shape: null,
})

interface Shape {
  readonly family: FamilyName
  readonly material: Material
  /** Its candidates so far, by root and the letter the home scale spells it with: always the same objects. */
  readonly laid: (Candidate | undefined)[]
}
const SHAPES: readonly Shape[] = [
  ...MATERIALS.map((material): Shape => ({ family: material.family, material, laid: [] })),
  ...CHANGED_PENTATONICS.map((material): Shape => ({ family: 'changed', material, laid: [] })),
]
const NOT_IN_HOME = 7

/** A root, and the home scale's note there if it has one. */
interface Root {
  readonly pc: PitchClass
  readonly given: Note | undefined
}
const laidOn = ({ family, material, laid }: Shape, { pc, given }: Root): Candidate => {
  const at = 8 * pc + (given?.letter ?? NOT_IN_HOME)
  const before = laid[at]
  if (before) return before
  const made = placedOn(family, material, pc, given)
  laid[at] = made
  return made
}

/** Roots upward from the chord's own, so that equal ranks begin at home. */
const rootsFrom = (place: Place): readonly PitchClass[] =>
  Array.from({ length: 12 }, (_, up) => pitchClass(place.chord.root.pc + up))

/** Every slip of the home material, half steps up and down to the tritone. */
const slips = (home: Overlay): readonly Candidate[] =>
  [-6, -5, -4, -3, -2, -1, 1, 2, 3, 4, 5].map((n) => ({
    family: 'slip',
    material: null,
    set: rotate(home.set, n),
    root: null,
    passing: null,
    overlay: once(() => slipOverlay(home, n, home.notes)),
    also: 0,
    shape: null,
  }))

const TRIADS = MATERIALS.filter((m) => m.family === 'triad')

/** Every pair of catalogue triads on twelve roots that fits; two triads with the same notes are no pair. */
export const pairsOver = (place: Place, fits: (shape: PairShape) => boolean): readonly Candidate[] => {
  const home = homeOverlay(place.home.first).notes
  const triads = rootsFrom(place).flatMap((pc) => TRIADS.map((m) => ({ pc, material: m, set: rotate(m.set, pc) })))
  const candidates: Candidate[] = []
  for (const [i, a] of triads.entries())
    for (let j = i + 1; j < triads.length; j++) {
      const b = triads[j]
      if (!b || a.set === b.set) continue
      const exclusive = shared(a.set, b.set) === 0
      const shape = { first: a.material, second: b.material, apart: pitchClass(b.pc - a.pc), exclusive }
      if (!fits(shape)) continue
      const overlay = once(() =>
        pairOf(
          placeOn(generatedRoot(a.pc, home, a.material), a.material),
          placeOn(generatedRoot(b.pc, home, b.material), b.material),
        ),
      )
      const set = union(a.set, b.set)
      candidates.push({ family: 'pair', material: null, set, root: a.pc, passing: null, overlay, also: 0, shape })
    }
  return candidates
}

/** The wished families on twelve roots; pairs as `pair`, every one of them. */
export const candidatesOver = (place: Place, families: readonly FamilyName[]): readonly Candidate[] => {
  const home = homeOverlay(place.home.first)
  const given = givenBy(home.notes)
  const roots = rootsFrom(place).map((pc): Root => ({ pc, given: given[pc] }))
  const all: Candidate[] = []
  for (const shape of SHAPES)
    if (families.includes(shape.family)) for (const root of roots) all.push(laidOn(shape, root))
  if (families.includes('slip')) all.push(...slips(home))
  if (families.includes('pair')) all.push(...pairsOver(place, () => true))
  return all
}

export const PENTATONIC_NAMINGS = ['as minor', 'as major'] as const
export type PentatonicNaming = (typeof PENTATONIC_NAMINGS)[number]

export const PREFERRED_PENTATONIC: Readonly<Record<PentatonicNaming, string>> = {
  'as minor': 'minor pentatonic',
  'as major': 'major pentatonic',
}

/** Pairs and slips are told apart by what they are made of, not by their notes. */
const sameness = ({ family, set }: Candidate): string | null =>
  family === 'pair' || family === 'slip' ? null : `${family} ${set}`

const PROPER = new Set<PcSet>(
  MATERIALS.filter((m) => m.family === 'pentatonic').flatMap((m) =>
    Array.from({ length: 12 }, (_, n) => rotate(m.set, n)),
  ),
)
/** A changed pentatonic that has a proper name is told under that. */
const hasProperName = ({ family, set }: Candidate): boolean => family === 'changed' && PROPER.has(set)

/**
 * The same candidates with equal sets of one family told once: under the chord's own root, else upward from it; major
 * and minor pentatonics under the name the player wants.
 */
export const withoutDoubles = <C extends Candidate>(
  candidates: readonly C[],
  naming: PentatonicNaming,
): readonly C[] => {
  const groups = new Map<string, C[]>()
  const alone: C[] = []
  for (const c of candidates) {
    if (hasProperName(c)) continue
    const key = sameness(c)
    if (key === null) alone.push(c)
    else groups.set(key, [...(groups.get(key) ?? []), c])
  }
  const told = [...groups.values()].map((same): C => {
    const chosen = same.find((c) => c.material?.name === PREFERRED_PENTATONIC[naming]) ?? same[0]
    if (!chosen) throw new Error('a group of candidates is empty')
    return { ...chosen, also: same.length - 1 }
  })
  return [...told, ...alone]
}
