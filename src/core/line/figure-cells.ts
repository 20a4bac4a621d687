import { notesOverlay, type Overlay } from '../material/overlay.ts'
import { degree, spell } from '../pitch/degree.ts'
import { type Note, plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeOverlay } from '../reading/home.ts'
import type { Timeline } from '../time/timeline.ts'
import { BITS } from './bits.ts'
import { type HeardNote, isParted } from './heard.ts'

/** A figure known by its order and not only by its notes: a cell of degrees, fourths in a row, thirds up or down a scale. */
export interface FigureCell {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay
  readonly how: 'degrees' | 'fourths' | 'thirds'
  readonly bits: number
}

/** [degrees from the cell's root, semitones above it]. Source: theory page, section 9, degree cells. */
const DEGREE_CELLS: readonly (readonly [names: string, ups: readonly number[]])[] = [
  ['1 2 3 5', [0, 2, 4, 7]],
  ['1 2 b3 5', [0, 2, 3, 7]],
  ['1 b2 b3 5', [0, 1, 3, 7]],
  ['1 2 3 b5', [0, 2, 4, 6]],
  ['1 2 b3 b5', [0, 2, 3, 6]],
  ['1 2 3 #5', [0, 2, 4, 8]],
  ['1 2 3 4', [0, 2, 4, 5]],
  ['1 2 b3 4', [0, 2, 3, 5]],
  ['1 b2 b3 4', [0, 1, 3, 5]],
]
const CELL = 4
const FOURTH = 5
const TRITONE = 6

/** Each interval pattern from the lowest note, rising, with its cell. */
const BY_PATTERN = new Map(DEGREE_CELLS.map(([names, ups]) => [ups.join(), names]))

const together = (notes: readonly HeardNote[], from: number, to: number, timeline: Timeline): boolean => {
  for (let i = from; i < to; i++) if (isParted(notes[i] as HeardNote, notes[i + 1] as HeardNote, timeline)) return false
  return true
}

/** A cell's root as the home scale spells it, else as one nobody typed. */
const rootNote = (pitch: number, n: HeardNote, minor: boolean): Note => {
  const place = n.sounding?.place
  const own = place && homeOverlay(place.home.first).notes.find((x) => x.pc === pitchClass(pitch))
  return own && Math.abs(own.alter) < 2 ? own : plainNote(pitchClass(pitch), minor)
}

/** The notes of degrees above a root, under those degrees' name: `1 2 b3 5 of D`. */
export const degreesOf = (names: string, root: Note): Overlay => {
  const [first = root, ...rest] = names.split(' ').map((n) => spell(root, degree(n)))
  return { ...notesOverlay([first, ...rest]), name: `${names} of ${root.name}` }
}

/** More for a cell at home that does not stand on the chord's own root: it is rather the scale. */
const OFF_THE_ROOT = 2.5
/** More for four steps of a scale, which are a cell only where nothing goes on. */
const A_MERE_RUN = 0.7

/** Four notes in a row, each once, up or down or turned about: the degrees they are of the lowest. */
const degreeCellAt = (notes: readonly HeardNote[], from: number): FigureCell | null => {
  const four = notes.slice(from, from + CELL)
  const n = four[0]
  if (
    !n ||
    four.length < CELL ||
    four.some((x) => x.sounding?.spot.spot.chord.symbol !== n.sounding?.spot.spot.chord.symbol)
  )
    return null
  const pitches = four.map((x) => x.pitch as number)
  const low = Math.min(...pitches)
  const sorted = [...pitches].sort((a, b) => a - b)
  const names = BY_PATTERN.get(sorted.map((p) => p - low).join())
  if (!names) return null
  const inOrder = pitches.every((p, i) => p === sorted[i]) || pitches.every((p, i) => p === sorted[CELL - 1 - i])
  const away = four.some((x) => !x.inHome)
  const onRoot = low % 12 === n.sounding?.place?.chord.root.pc ? 0 : OFF_THE_ROOT
  const run = names.endsWith('4') ? A_MERE_RUN : 0
  const header = BITS.figure + run + (away ? BITS.root : onRoot)
  const bits = header + (inOrder ? BITS.inOrder.first + (CELL - 1) * BITS.inOrder.note : CELL * Math.log2(CELL))
  return {
    from,
    to: from + CELL - 1,
    overlay: degreesOf(names, rootNote(low, n, names.includes('b3'))),
    how: 'degrees',
    bits,
  }
}

/**
 * Two fourths or more in a row, all up or all down; a fifth the other way is a fourth an octave away. Within the home
 * scale one of them may be its tritone: then they are that scale in fourths.
 */
const fourthsAt = (notes: readonly HeardNote[], from: number, timeline: Timeline): FigureCell | null => {
  const step = (i: number): number => (notes[i + 1]?.pitch ?? 0) - (notes[i]?.pitch ?? 0)
  const way = Math.sign(step(from))
  const isFourth = (i: number): boolean => [way * FOURTH, way * (FOURTH - 12)].includes(step(i))
  const goesOn = (i: number): boolean => isFourth(i) || step(i) === way * TRITONE
  if (Math.abs(step(from)) > TRITONE || !goesOn(from) || (from > 0 && goesOn(from - 1))) return null
  let to = from
  while (to + 1 < notes.length && goesOn(to)) to++
  if (to - from < 2 || !together(notes, from, to, timeline)) return null
  const run = notes.slice(from, to + 1)
  const atHome = run.every((n) => n.inHome)
  const bits = BITS.figure + (atHome ? Math.log2(7) : BITS.root) + BITS.neighbour * run.length
  const all = Array.from({ length: to - from }, (_, k) => isFourth(from + k))
  if (all.every(Boolean)) return { from, to, overlay: fourthsFrom(run, way), how: 'fourths', bits }
  const home = run[0]?.sounding?.place && homeOverlay(run[0].sounding.place.home.first)
  const oneTritone = all.filter((f) => !f).length === 1
  return home && atHome && oneTritone ? { from, to, overlay: home, how: 'fourths', bits } : null
}

const fourthsFrom = (run: readonly HeardNote[], way: number): Overlay => {
  const low = (way > 0 ? run[0] : run.at(-1)) as HeardNote
  const root = rootNote(low.pitch, low, false)
  const [first = root, ...rest] = ['1', '4', 'b7', 'b10', 'b13'].slice(0, run.length).map((d) => spell(root, degree(d)))
  return { ...notesOverlay([first, ...rest]), name: `${root.name} quartal ${Math.min(run.length, 5)}` }
}

/** A scale in thirds: a third, a step back against it, and on, four notes or more; all of them at home. */
const thirdsAt = (notes: readonly HeardNote[], from: number, timeline: Timeline): FigureCell | null => {
  const n = notes[from]
  const home = n?.sounding?.place && homeOverlay(n.sounding.place.home.first)
  if (!n || !home || !isThirdsStart(notes, from)) return null
  const to = thirdsEnd(notes, from, isWithinThirds(notes, from) ? from + LONGEST_PART : notes.length)
  const run = notes.slice(from, to + 1)
  if (run.length < 6 || !together(notes, from, to, timeline)) return null
  if (!run.every((x) => (home.set >> pitchClass(x.pitch)) & 1)) return null
  return {
    from,
    to,
    overlay: home,
    how: 'thirds',
    bits: BITS.figure + Math.log2(7) + BITS.neighbour * (run.length - 1),
  }
}

const stepAt = (notes: readonly HeardNote[], i: number): number =>
  (notes[i + 1]?.pitch ?? 1000) - (notes[i]?.pitch ?? 0)
const isThird = (by: number): boolean => Math.abs(by) === 3 || Math.abs(by) === 4
const isSecond = (by: number): boolean => Math.abs(by) === 1 || Math.abs(by) === 2

const isThirdsStart = (notes: readonly HeardNote[], i: number): boolean => {
  const [a, b, c] = [stepAt(notes, i), stepAt(notes, i + 1), stepAt(notes, i + 2)]
  return isThird(a) && isSecond(b) && isThird(c) && Math.sign(a) !== Math.sign(b) && Math.sign(a) === Math.sign(c)
}

/** Whether the thirds that start at a note go on from two notes before it. */
const isWithinThirds = (notes: readonly HeardNote[], from: number): boolean =>
  from >= 2 && isThirdsStart(notes, from - 2)
/** So many notes of thirds are looked at from within them; from their beginning, all. */
const LONGEST_PART = 64

const thirdsEnd = (notes: readonly HeardNote[], from: number, before = notes.length): number => {
  const way = Math.sign(stepAt(notes, from))
  let to = from + 1
  while (
    to + 2 <= before &&
    isSecond(stepAt(notes, to)) &&
    Math.sign(stepAt(notes, to)) === -way &&
    isThird(stepAt(notes, to + 1)) &&
    Math.sign(stepAt(notes, to + 1)) === way
  )
    to += 2
  return to
}

/** Places within a run of thirds: what looks like an enclosure there is none. */
export const inThirds = (notes: readonly HeardNote[]): ReadonlySet<number> => {
  const inside = new Set<number>()
  for (let i = 0; i < notes.length; i++) {
    if (!isThirdsStart(notes, i)) continue
    const to = thirdsEnd(notes, i)
    if (to - i >= CELL - 1) for (let k = i; k <= to; k++) inside.add(k)
    // What starts within them ends with them.
    i = Math.max(i, to - 2)
  }
  return inside
}

/** Every figure of the line that is known by its order, by the place it begins at. */
export const figureCellsIn = (
  notes: readonly HeardNote[],
  timeline: Timeline,
): ReadonlyMap<number, readonly FigureCell[]> => {
  const found = new Map<number, readonly FigureCell[]>()
  for (let i = 0; i < notes.length; i++) {
    const own = together(notes, i, Math.min(i + CELL, notes.length) - 1, timeline) ? degreeCellAt(notes, i) : null
    const all = [own, fourthsAt(notes, i, timeline), thirdsAt(notes, i, timeline)].filter((f) => f !== null)
    if (all.length > 0) found.set(i, all)
  }
  return found
}
