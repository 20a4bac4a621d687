import { groupedBy } from '../grouped.ts'
import { membersOf, rotate } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import type { Timeline } from '../time/timeline.ts'
import { inThirds } from './figure-cells.ts'
import type { HeardNote } from './heard.ts'
import { longestApart } from './spans.ts'

/**
 * A figure that comes again at a constant interval: `length` notes, `times` in all, moved by `by` semitones each time, or
 * (`tonal`) by `by` steps of the home scale.
 */
export interface Sequence {
  readonly from: number
  readonly to: number
  readonly length: number
  readonly by: number
  readonly times: number
  readonly tonal: boolean
}

/** Groups of so many notes that go against the beat: where they begin and end, and after how many beats they meet it again. */
export interface Grouping {
  readonly from: number
  readonly to: number
  readonly length: number
  readonly meetsAfterBeats: number
}

const [SHORTEST, LONGEST] = [3, 8] as const

/** Each note's place for comparing figures: its pitch, or its step in a scale; null where the scale lacks it. */
type Ladder = (i: number) => number | null

/** Steps of a home scale at each note, counted through the octaves; null off it. */
const stepsIn = (notes: readonly HeardNote[], home: PcSet): Ladder => {
  const members = membersOf(home)
  return (i) => {
    const n = notes[i]
    const at = n ? members.indexOf(pitchClass(n.pitch)) : -1
    return n && at >= 0 ? Math.floor(n.pitch / 12) * members.length + at : null
  }
}

/** How far, from each note, something that holds between neighbours goes on: the place of the last note of it. */
const goingOn = (size: number, holds: (i: number) => boolean): Int32Array => {
  const last = new Int32Array(size)
  for (let i = size - 1; i >= 0; i--) last[i] = i + 1 < size && holds(i) ? (last[i + 1] as number) : i
  return last
}

const isSecond = (notes: readonly HeardNote[], i: number, way: number): boolean => {
  const by = ((notes[i + 1]?.pitch ?? 0) - (notes[i]?.pitch ?? 0)) * way
  return by === 1 || by === 2
}

/** From each note the last to which it is a run and no sequence: one step over and over, or seconds all one way. */
const runsOn = (notes: readonly HeardNote[], ladder: Ladder): Int32Array => {
  const step = (i: number): number => (ladder(i + 1) ?? 0) - (ladder(i) ?? 0)
  const same = goingOn(notes.length, (i) => i + 2 >= notes.length || step(i) === step(i + 1))
  const [rises, falls] = [1, -1].map((way) => goingOn(notes.length, (i) => isSecond(notes, i, way)))
  return same.map((to, i) => Math.max(Math.min(to + 1, notes.length - 1), rises?.[i] ?? 0, falls?.[i] ?? 0))
}

/** Whether a note comes again a figure's length on, moved by so much, in the same time. */
type Again = (i: number) => boolean
const againBy = (notes: readonly HeardNote[], length: number, ladder: Ladder, from: number): Again => {
  const moved = (i: number): number => (ladder(i + length) ?? Number.NaN) - (ladder(i) ?? Number.NaN)
  const gap = (i: number): number => (notes[i + length]?.at ?? 0) - (notes[i]?.at ?? 0)
  const [by, after] = [moved(from), gap(from)]
  return (i) => moved(i) === by && gap(i) === after && notes[i]?.for === notes[i + length]?.for
}

/** From each note, how many notes on a figure of a length that begins there comes again, moved by one constant. */
const againFrom = (notes: readonly HeardNote[], length: number, ladder: Ladder): Int32Array => {
  const again = new Int32Array(notes.length)
  for (let i = notes.length - 1 - length; i >= 0; i--) {
    const comes = againBy(notes, length, ladder, i)
    if (comes(i)) again[i] = 1 + (comes(i + 1) ? (again[i + 1] as number) : 0)
  }
  return again
}

/** A sequence of two figures only is told from eight notes on: shorter ones come about by chance. */
const LEAST_OF_TWO = 8

/** The sequences that begin at some of the notes, by their places on a ladder. */
const sequencesOn = (
  notes: readonly HeardNote[],
  ladder: Ladder,
  tonal: boolean,
  begins: readonly number[],
): readonly Sequence[] => {
  const found: Sequence[] = []
  let runs: Int32Array | undefined
  for (let length = SHORTEST; length <= LONGEST; length++) {
    let again: Int32Array | undefined
    for (const from of begins) {
      if (from + length >= notes.length) break
      const by = (ladder(from + length) ?? 0) - (ladder(from) ?? 0)
      if (by === 0) continue
      const comes = againBy(notes, length, ladder, from)
      let k = 0
      while (k < length && comes(from + k)) k++
      if (k < length) continue
      again ??= againFrom(notes, length, ladder)
      runs ??= runsOn(notes, ladder)
      const times = 1 + Math.floor((again[from] as number) / length)
      const to = from + times * length - 1
      if ((runs[from] as number) >= to || (times === 2 && times * length < LEAST_OF_TWO)) continue
      found.push({ from, to, length, by, times, tonal })
    }
  }
  return found
}

const homeAt = (n: HeardNote): PcSet | null => {
  const place = n.sounding?.place
  return place ? rotate(place.home.first.set, place.chord.root.pc) : null
}

/** Sequences within the home scale of the note each begins at. */
const tonalSequences = (notes: readonly HeardNote[]): readonly Sequence[] => {
  const homes = groupedBy([...notes.keys()], (i) => homeAt(notes[i] as HeardNote))
  return [...homes].flatMap(([home, begins]) =>
    home === null ? [] : sequencesOn(notes, stepsIn(notes, home), true, begins),
  )
}

/**
 * Figures at a constant interval, exact or within the scale: the one that covers most first where they would overlap, an
 * exact one before a tonal one; a mere repeat is none.
 */
export const sequencesIn = (notes: readonly HeardNote[]): readonly Sequence[] => {
  const thirds = inThirds(notes)
  const isThirds = (s: Sequence): boolean => s.tonal && thirds.has(s.from) && thirds.has(s.to)
  const exact = sequencesOn(notes, (i) => notes[i]?.pitch ?? null, false, [...notes.keys()])
  const found = [...exact, ...tonalSequences(notes).filter((s) => !isThirds(s))]
  const first = (a: Sequence, b: Sequence): number =>
    Number(a.tonal) - Number(b.tonal) || a.length - b.length || a.from - b.from
  return longestApart(found, notes.length, first)
}

const contour = (notes: readonly HeardNote[], i: number): number =>
  Math.sign((notes[i + 1]?.pitch ?? 0) - (notes[i]?.pitch ?? 0))

/** How many groups of a length follow each other from each note on, all even and of one shape. */
const groupsFrom = (notes: readonly HeardNote[], length: number): Int32Array => {
  const even = goingOn(notes.length, (i) => {
    const [n, next] = [notes[i] as HeardNote, notes[i + 1] as HeardNote]
    return next.for === n.for && next.at === n.at + n.for
  })
  const groups = new Int32Array(notes.length)
  const isAlike = (a: number, b: number): boolean => {
    for (let k = 0; k < length - 1; k++) if (contour(notes, a + k) !== contour(notes, b + k)) return false
    return true
  }
  for (let i = notes.length - length; i >= 0; i--) {
    if ((even[i] as number) < i + length - 1) continue
    const goesOn = (even[i] as number) >= i + length && (groups[i + length] ?? 0) > 0 && isAlike(i, i + length)
    groups[i] = 1 + (goesOn ? (groups[i + length] as number) : 0)
  }
  return groups
}

/**
 * Groups of three to seven even notes that repeat their shape and do not fit the beat, three or more of them. Source:
 * theory page, sections 9 and 10.
 */
export const groupingsIn = (notes: readonly HeardNote[], { beat }: Timeline): readonly Grouping[] => {
  const found: Grouping[] = []
  for (const length of [3, 5, 6, 7]) {
    const all = groupsFrom(notes, length)
    for (let from = 0; from < notes.length; from++) {
      const [groups, group] = [all[from] as number, length * (notes[from] as HeardNote).for]
      if (groups < 3 || group % beat === 0) continue
      const shapes = new Set(Array.from({ length }, (_, i) => contour(notes, from + i)))
      if (shapes.size < 2) continue
      let meets = group
      while (meets % beat !== 0) meets += group
      found.push({ from, to: from + groups * length - 1, length, meetsAfterBeats: meets / beat })
    }
  }
  return longestApart(found, notes.length, (a, b) => a.length - b.length || a.from - b.from)
}
