import { membersOf, rotate } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { inThirds } from './figure-cells.ts'
import type { HeardNote } from './heard.ts'
import type { Timeline } from './timeline.ts'

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

/** How often a figure of a length comes again right after itself, moved by one constant on a ladder. */
const timesFrom = (
  notes: readonly HeardNote[],
  from: number,
  length: number,
  ladder: Ladder,
): { times: number; by: number } => {
  const [first, second] = [notes[from], notes[from + length]]
  const [a0, b0] = [ladder(from), ladder(from + length)]
  if (!first || !second || a0 === null || b0 === null) return { times: 1, by: 0 }
  const by = b0 - a0
  let i = from
  for (; notes[i + length]; i++) {
    const [a, b] = [notes[i] as HeardNote, notes[i + length] as HeardNote]
    const sameRhythm = a.for === b.for && b.at - a.at === second.at - first.at
    const [x, y] = [ladder(i), ladder(i + length)]
    if (x === null || y === null || y - x !== by || !sameRhythm) break
  }
  return { times: 1 + Math.floor((i - from) / length), by }
}

/** Steps of the home scale at a note, counted through the octaves; null off it. */
const stepsIn = (notes: readonly HeardNote[], from: number): Ladder => {
  const place = notes[from]?.sounding?.place
  if (!place) return () => null
  const members = membersOf(rotate(place.home.first.set, place.chord.root.pc))
  return (i) => {
    const n = notes[i]
    const at = n ? members.indexOf(pitchClass(n.pitch)) : -1
    return n && at >= 0 ? Math.floor(n.pitch / 12) * members.length + at : null
  }
}

/** One step over and over, or seconds all one way, is a run and no sequence. */
const isRun = (notes: readonly HeardNote[], from: number, to: number, ladder: Ladder): boolean => {
  const steps = new Set<number>()
  let [rises, falls] = [true, true]
  for (let i = from + 1; i <= to; i++) {
    steps.add((ladder(i) ?? 0) - (ladder(i - 1) ?? 0))
    const by = (notes[i]?.pitch ?? 0) - (notes[i - 1]?.pitch ?? 0)
    rises &&= by === 1 || by === 2
    falls &&= by === -1 || by === -2
  }
  return steps.size < 2 || rises || falls
}

/** A sequence of two figures only is told from eight notes on: shorter ones come about by chance. */
const LEAST_OF_TWO = 8

const sequencesBy = (notes: readonly HeardNote[], tonal: boolean): readonly Sequence[] => {
  const found: Sequence[] = []
  const pitches: Ladder = (i) => notes[i]?.pitch ?? null
  for (let from = 0; from < notes.length; from++) {
    const ladder = tonal ? stepsIn(notes, from) : pitches
    for (let length = SHORTEST; length <= LONGEST; length++) {
      const { times, by } = timesFrom(notes, from, length, ladder)
      if (times < 2 || by === 0) continue
      const to = from + times * length - 1
      if (isRun(notes, from, to, ladder) || (times === 2 && times * length < LEAST_OF_TWO)) continue
      found.push({ from, to, length, by, times, tonal })
    }
  }
  return found
}

/**
 * Figures at a constant interval, exact or within the scale: the one that covers most first where they would overlap, an
 * exact one before a tonal one; a mere repeat is none.
 */
export const sequencesIn = (notes: readonly HeardNote[]): readonly Sequence[] => {
  const thirds = inThirds(notes)
  const isThirds = (s: Sequence): boolean => s.tonal && thirds.has(s.from) && thirds.has(s.to)
  const found = [...sequencesBy(notes, false), ...sequencesBy(notes, true).filter((s) => !isThirds(s))]
  const kept: Sequence[] = []
  const size = (s: Sequence): number => s.to - s.from
  for (const s of found.sort((a, b) => size(b) - size(a) || Number(a.tonal) - Number(b.tonal) || a.length - b.length))
    if (!kept.some((k) => s.from <= k.to && k.from <= s.to)) kept.push(s)
  return kept.sort((a, b) => a.from - b.from)
}

const contour = (notes: readonly HeardNote[], i: number): number =>
  Math.sign((notes[i + 1]?.pitch ?? 0) - (notes[i]?.pitch ?? 0))

/** How many groups of a length follow each other from one note on, all even and of one shape. */
const groupsFrom = (notes: readonly HeardNote[], from: number, length: number): number => {
  const first = notes[from] as HeardNote
  const isEven = (i: number): boolean => {
    const n = notes[i]
    return n !== undefined && n.for === first.for && n.at === first.at + (i - from) * first.for
  }
  let groups = 0
  for (; ; groups++) {
    const start = from + groups * length
    for (let k = 0; k < length; k++) {
      if (!isEven(start + k)) return groups
      if (k < length - 1 && contour(notes, start + k) !== contour(notes, from + k)) return groups
    }
  }
}

/**
 * Groups of three to seven even notes that repeat their shape and do not fit the beat, three or more of them. Source:
 * theory page, sections 9 and 10.
 */
export const groupingsIn = (notes: readonly HeardNote[], { beat }: Timeline): readonly Grouping[] => {
  const found: Grouping[] = []
  for (let from = 0; from < notes.length; from++)
    for (const length of [3, 5, 6, 7]) {
      const duration = (notes[from] as HeardNote).for
      const group = length * duration
      const shapes = new Set(Array.from({ length }, (_, i) => contour(notes, from + i)))
      const groups = groupsFrom(notes, from, length)
      if (groups < 3 || group % beat === 0 || shapes.size < 2) continue
      let meets = group
      while (meets % beat !== 0) meets += group
      found.push({ from, to: from + groups * length - 1, length, meetsAfterBeats: meets / beat })
    }
  const kept: Grouping[] = []
  for (const g of found.sort((a, b) => b.to - b.from - (a.to - a.from) || a.length - b.length))
    if (!kept.some((k) => g.from <= k.to && k.from <= g.to)) kept.push(g)
  return kept.sort((a, b) => a.from - b.from)
}
