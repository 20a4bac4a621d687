import { spell } from '../pitch/degree.ts'
import { isHardRoot, type Note, plainNote, spellOn } from '../pitch/note.ts'
import { rotate, setOf, union } from '../pitch/pcset.ts'
import { type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import { type Material, nameOn } from './material.ts'

/** A material placed on a root, a pair of triads, or a handful of notes: what is laid over a chord. */
export interface Overlay {
  /** Canonical, ASCII: asking for it gives the same overlay. */
  readonly name: string
  readonly root: Note
  /** In the formula's order from the root; of a pair the first triad, then what the second adds. */
  readonly notes: readonly Note[]
  readonly set: PcSet
  readonly material: Material | null
  /** The two triads of a pair. */
  readonly groups: readonly [Overlay, Overlay] | null
  /** The passing note of a bebop scale. */
  readonly passing: PitchClass | null
}

/** Worked out once for each of the thirty-five notes and each material: both are always the same objects. */
const remembered = <T>(make: (root: Note, material: Material) => T): ((root: Note, material: Material) => T) => {
  const known = new WeakMap<Material, Map<Note, T>>()
  return (root, material) => {
    const of = known.get(material) ?? new Map<Note, T>()
    if (of.size === 0) known.set(material, of)
    const before = of.get(root)
    if (before !== undefined) return before
    const made = make(root, material)
    of.set(root, made)
    return made
  }
}

export const placeOn = remembered(
  (root, material): Overlay => ({
    name: nameOn(root.name, material),
    root,
    notes: material.formula.map((d) => spell(root, d)),
    set: rotate(material.set, root.pc),
    material,
    groups: null,
    passing: material.passing === null ? null : (((root.pc + material.passing) % 12) as PitchClass),
  }),
)

/** A pair of triads, sounding alternately; notes they share are listed once. */
export const pairOf = (first: Overlay, second: Overlay): Overlay => ({
  name: `${first.name} & ${second.name}`,
  root: first.root,
  notes: [...first.notes, ...second.notes.filter((n) => !first.notes.some((m) => m.pc === n.pc))],
  set: union(first.set, second.set),
  material: null,
  groups: [first, second],
  passing: null,
})

/** Just these notes, as typed; a pitch class named twice is kept once. The root is the first. */
export const notesOverlay = (typed: readonly [Note, ...Note[]]): Overlay => {
  const notes = typed.filter((n, i) => typed.findIndex((m) => m.pc === n.pc) === i)
  return {
    name: notes.map((n) => n.name).join(' '),
    root: typed[0],
    notes,
    set: setOf(notes.map((n) => n.pc)),
    material: null,
    groups: null,
    passing: null,
  }
}

const isHard = (root: Note): boolean => isHardRoot(root) || Math.abs(root.alter) > 1

/** What stands in thirds or is a pentatonic takes its plainest spelling; a scale that of the key it belongs to. */
const PLAINEST: ReadonlySet<string> = new Set(['triad', 'seventh', 'ninth', 'pentatonic'])

/** How hard a plain shape on a root reads: a hard root most, then double accidentals, then every sign. */
const hardness = remembered((root, { formula }): number => {
  const alters = formula.map((d) => Math.abs(spell(root, d).alter))
  const doubles = alters.filter((a) => a > 1).length
  const signs = alters.filter((a) => a > 0).length
  return (isHard(root) ? 10_000 : 0) + 100 * doubles + signs
})

/** Every plain name of a pitch class: a letter with one accidental at most. */
const NAMES: readonly (readonly Note[])[] = Array.from({ length: 12 }, (_, pc) =>
  Array.from({ length: 7 }, (_, letter) => spellOn(letter, pitchClass(pc))).filter(
    (n): n is Note => n !== undefined && Math.abs(n.alter) < 2,
  ),
)

/**
 * A root nobody typed: as the given notes spell it where that reads no harder than the name in the table of black keys,
 * else from that table; a plain shape by another name only where both need a hard root or double accidentals. Source: theory page, section 1.
 */
export const generatedRoot = (pc: PitchClass, inScale: readonly Note[], material: Material): Note => {
  const usual = plainNote(pc, material.minorThird)
  const given = inScale.find((n) => n.pc === pc)
  // A scale keeps the name its root has in the scale at hand: a mode is named from the chord's own root.
  if (!PLAINEST.has(material.family)) return given && !isHard(given) ? given : usual
  const own = given ?? usual
  const first = hardness(own, material) <= hardness(usual, material) ? own : usual
  if (hardness(first, material) < 100) return first
  return (NAMES[pc] ?? []).reduce((best, n) => (hardness(n, material) < hardness(best, material) ? n : best), first)
}

/** How notes are spelled, by their pitch classes. */
export const givenBy = (notes: readonly Note[]): readonly (Note | undefined)[] => {
  const given: (Note | undefined)[] = []
  for (const n of notes) given[n.pc] ??= n
  return given
}

/** A material on a root nobody typed, spelled as the note that is given there, where one is. */
export const placeAs = (pc: PitchClass, given: Note | undefined, material: Material): Overlay =>
  placeOn(generatedRoot(pc, given ? [given] : [], material), material)

/** The overlay moved by semitones, each root respelled as nobody typed it: in `inScale` where it belongs there. */
export const slipOverlay = (overlay: Overlay, semitones: number, inScale: readonly Note[]): Overlay => {
  if (overlay.groups)
    return pairOf(
      slipOverlay(overlay.groups[0], semitones, inScale),
      slipOverlay(overlay.groups[1], semitones, inScale),
    )
  const to = (pc: PitchClass): PitchClass => pitchClass(pc + semitones)
  if (overlay.material) return placeOn(generatedRoot(to(overlay.root.pc), inScale, overlay.material), overlay.material)
  const [first = overlay.root, ...rest] = overlay.notes.map(
    (n) => inScale.find((s) => s.pc === to(n.pc)) ?? plainNote(to(n.pc)),
  )
  return notesOverlay([first, ...rest])
}
