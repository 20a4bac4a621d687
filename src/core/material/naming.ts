import type { Note } from '../pitch/note.ts'
import { rotate, shared, sizeOf } from '../pitch/pcset.ts'
import { type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import { CHANGED_PENTATONICS } from './changed.ts'
import { MATERIALS, type Material } from './material.ts'
import { givenBy, type Overlay, placeAs } from './overlay.ts'

interface Placement {
  readonly pc: PitchClass
  readonly set: PcSet
  readonly size: number
  readonly order: number
  /** Named by what moved: only the last resort where the set has a name of its own. */
  readonly changed: boolean
  readonly material: Material
  /** Where it is in `PLACEMENTS`: twelve to a material, by root. */
  readonly nth: number
}

const FAMILY_ORDER = ['triad', 'seventh', 'pentatonic', 'ninth', 'quartal', 'mode', 'bebop', 'blues', 'symmetric']

/** From here on they are pentatonics with a note changed, named by what moved. */
const OWN = MATERIALS.length * 12

const placed = (material: Material, first: number): readonly Placement[] =>
  Array.from({ length: 12 }, (_, n) => ({
    pc: pitchClass(n),
    set: rotate(material.set, n),
    size: material.formula.length,
    changed: first >= OWN,
    order: FAMILY_ORDER.indexOf(material.family),
    material,
    nth: first + n,
  }))

/** The catalogue on twelve roots. */
const PLACEMENTS: readonly Placement[] = [...MATERIALS, ...CHANGED_PENTATONICS].flatMap((m, i) => placed(m, i * 12))

/** A symmetric material once for each of its different transpositions. */
const DISTINCT = PLACEMENTS.slice(0, OWN).filter(
  (p, i) => !PLACEMENTS.slice(i - (i % 12), i).some((q) => q.set === p.set),
)

const bySet = new Map<PcSet, Placement[]>()
for (const p of PLACEMENTS) bySet.set(p.set, [...(bySet.get(p.set) ?? []), p])

/** Best first for a set of so many notes on a root: its own root, then nearest in size, then by family, then upward. */
const inOrder = (found: readonly Placement[], root: PitchClass, size: number): readonly Placement[] =>
  [...found].sort(
    (a, b) =>
      Number(a.changed) - Number(b.changed) ||
      Number(b.pc === root) - Number(a.pc === root) ||
      Math.abs(a.size - size) - Math.abs(b.size - size) ||
      a.order - b.order ||
      pitchClass(a.pc - root) - pitchClass(b.pc - root),
  )

const equalTo = (set: PcSet, root: PitchClass): readonly Placement[] => {
  const found = bySet.get(set) ?? []
  return found.length > 1 ? inOrder(found, root, sizeOf(set)) : found
}

/** Seven letters, and none. */
const LETTERS = 8
const NOT_GIVEN = 7

/** Each placement as it was spelled already, by the letter its root was given. */
const SPELLED: (Overlay | null)[] = Array(PLACEMENTS.length * LETTERS).fill(null)

const named = (nth: number, given: readonly (Note | undefined)[]): Overlay => {
  const pc = pitchClass(nth)
  const note = given[pc]
  const place = nth * LETTERS + (note === undefined ? NOT_GIVEN : note.letter)
  const before = SPELLED[place]
  if (before) return before
  const made = placeAs(pc, note, (PLACEMENTS[nth] as Placement).material)
  SPELLED[place] = made
  return made
}

interface Catalogue {
  /** Where each is in `PLACEMENTS`, and its set. */
  readonly nths: Uint16Array
  readonly sets: Uint16Array
}
/** The catalogue in order, for each root and size that was asked about. */
const catalogues = new Map<number, Catalogue>()
const catalogueFor = (root: PitchClass, size: number): Catalogue => {
  const known = catalogues.get(size * 12 + root)
  if (known) return known
  const ordered = inOrder(DISTINCT, root, size)
  const made = { nths: Uint16Array.from(ordered, (p) => p.nth), sets: Uint16Array.from(ordered, (p) => p.set) }
  catalogues.set(size * 12 + root, made)
  return made
}

/**
 * Every named overlay that has exactly these notes: those on the given root first, then by family (triad, seventh,
 * pentatonic, mode, symmetric), then upward. Roots take their spelling from the overlay's own notes.
 */
export const namesOf = (set: PcSet, like: Overlay): readonly Overlay[] => {
  const given = givenBy(like.notes)
  return equalTo(set, like.root.pc).map((p) => named(p.nth, given))
}

export const isNamed = (set: PcSet): boolean => bySet.has(set)

/** What a set equals, is held in, and holds, best first: its own root, then nearest in size, then by family. */
export interface Names {
  readonly equal: readonly Overlay[]
  readonly within: readonly Overlay[]
  readonly holds: readonly Overlay[]
}

/** Names a set against the whole catalogue. The typed root is the overlay's root. Source: theory page, section 3. */
export const nameSet = (overlay: Overlay): Names => {
  const { set, root } = overlay
  const { nths, sets } = catalogueFor(root.pc, sizeOf(set))
  const given = givenBy(overlay.notes)
  const within: Overlay[] = []
  const inside: Overlay[] = []
  for (let i = 0; i < sets.length; i++) {
    const other = sets[i] as PcSet
    if (other === set) continue
    const both = shared(other, set)
    if (both === set) within.push(named(nths[i] as number, given))
    else if (both === other) inside.push(named(nths[i] as number, given))
  }
  return { equal: equalTo(set, root.pc).map((p) => named(p.nth, given)), within, holds: inside }
}
