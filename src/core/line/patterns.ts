import type { HeardNote } from './heard.ts'
import type { Timeline } from './timeline.ts'

/** A figure that comes again at a constant interval: `length` notes, `times` in all, moved by `by` semitones each time. */
export interface Sequence {
  readonly from: number
  readonly to: number
  readonly length: number
  readonly by: number
  readonly times: number
}

/** Groups of so many notes that go against the beat: where they begin and end, and after how many beats they meet it again. */
export interface Grouping {
  readonly from: number
  readonly to: number
  readonly length: number
  readonly meetsAfterBeats: number
}

const [SHORTEST, LONGEST] = [3, 8] as const

/** How often a figure of a length comes again right after itself, moved by one constant. */
const timesFrom = (notes: readonly HeardNote[], from: number, length: number): { times: number; by: number } => {
  const at = (i: number): HeardNote | undefined => notes[i]
  const first = at(from)
  const second = at(from + length)
  if (!first || !second) return { times: 1, by: 0 }
  const by = second.pitch - first.pitch
  let i = from
  for (; at(i + length); i++) {
    const [a, b] = [at(i) as HeardNote, at(i + length) as HeardNote]
    const sameRhythm = a.for === b.for && b.at - a.at === second.at - first.at
    if (b.pitch - a.pitch !== by || !sameRhythm) break
  }
  return { times: 1 + Math.floor((i - from) / length), by }
}

/** Figures at a constant interval, the one that covers most first where they would overlap; a mere repeat is none. */
export const sequencesIn = (notes: readonly HeardNote[]): readonly Sequence[] => {
  const found: Sequence[] = []
  for (let from = 0; from < notes.length; from++)
    for (let length = SHORTEST; length <= LONGEST; length++) {
      const { times, by } = timesFrom(notes, from, length)
      const steps = new Set(
        notes.slice(from, from + length).map((n, i, all) => n.pitch - (all[i - 1]?.pitch ?? n.pitch)),
      )
      // One step over and over (a scale, an arpeggio of equal steps) is a run, not a sequence.
      if (times < 2 || by === 0 || steps.size < 3) continue
      found.push({ from, to: from + times * length - 1, length, by, times })
    }
  const kept: Sequence[] = []
  for (const s of found.sort((a, b) => b.to - b.from - (a.to - a.from) || a.length - b.length))
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
