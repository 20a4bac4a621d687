import { soundingAt, type Timeline } from '../time/timeline.ts'
import { inThirds } from './figure-cells.ts'
import { type HeardNote, isChordTone, isParted, isToneOf, stepTo } from './heard.ts'
import { endOf } from './line.ts'
import { coverOf } from './spans.ts'

/** What a note does to the notes about it. `of` is the note it is for, by its place in the line. */
export interface Melodic {
  readonly kind:
    | 'enclosure'
    | 'double chromatic'
    | 'chromatic approach from above'
    | 'chromatic approach from below'
    | 'approach from above'
    | 'approach from below'
    | 'passing'
    | 'neighbour'
    | 'anticipation'
    | 'delayed resolution'
    | 'target'
  readonly of: number
}

/** A figure that leads to one note: from its first note to that one. */
export interface Figure {
  readonly kind: 'enclosure' | 'double chromatic'
  readonly from: number
  readonly to: number
}

const apart = (a: HeardNote, b: HeardNote): number => Math.abs(stepTo(a, b))
const near = (x: HeardNote, t: HeardNote): boolean => apart(x, t) === 1 || apart(x, t) === 2

const joined = (notes: readonly HeardNote[], timeline: Timeline): boolean =>
  notes.every((n, i) => i === 0 || !isParted(notes[i - 1] as HeardNote, n, timeline))

/** Whether a note can be what others lead to: a chord tone on a beat, or longer than what leads to it. */
const isTarget = (t: HeardNote, before: readonly HeardNote[]): boolean =>
  isChordTone(t) && (t.onBeat || before.every((x) => t.for > x.for))

/** The last two notes of an arpeggio, reached by a third the same way, merely turn round at its top. */
const isTopOfArpeggio = (notes: readonly HeardNote[], i: number): boolean => {
  const [before, a, b] = [notes[i - 1], notes[i], notes[i + 1]]
  if (!before || !a || !b) return false
  const [into, within] = [stepTo(before, a), stepTo(a, b)]
  return (
    [3, 4].includes(Math.abs(within)) && [3, 4, 5].includes(Math.abs(into)) && Math.sign(into) === Math.sign(within)
  )
}

/** Both sides of the target within a whole step, one of them no chord tone; of four notes, two on one side in a row. */
const enclosureAt = (
  notes: readonly HeardNote[],
  i: number,
  length: 3 | 4,
  timeline: Timeline,
  thirds: ReadonlySet<number>,
): Figure | null => {
  const all = notes.slice(i, i + length)
  const t = all[length - 1]
  const before = all.slice(0, -1)
  if (!t || all.length < length || !joined(all, timeline)) return null
  if (before.every((_, k) => thirds.has(i + k)) || isTopOfArpeggio(notes, i)) return null
  const sides = before.map((x) => Math.sign(stepTo(t, x)))
  const turns = sides.filter((s, k) => k > 0 && s !== sides[k - 1]).length
  const fits = before.every((x) => near(x, t)) && turns === 1 && before.some((x) => !isChordTone(x))
  const distinct = new Set(before.map((x) => x.pitch)).size === before.length
  return fits && distinct && isTarget(t, before) ? { kind: 'enclosure', from: i, to: i + length - 1 } : null
}

const doubleAt = (notes: readonly HeardNote[], i: number, timeline: Timeline): Figure | null => {
  const [before, a, b, t] = [notes[i - 1], notes[i], notes[i + 1], notes[i + 2]]
  if (!a || !b || !t || !joined([a, b, t], timeline)) return null
  const way = stepTo(b, t)
  const longer = before && stepTo(before, a) === way
  const chromatic = Math.abs(way) === 1 && stepTo(a, b) === way && !(a.inHome && b.inHome)
  return chromatic && !longer && isTarget(t, [a, b]) ? { kind: 'double chromatic', from: i, to: i + 2 } : null
}

/** Enclosures and double chromatic approaches, the longer first, none over another. */
export const figuresIn = (notes: readonly HeardNote[], timeline: Timeline): readonly Figure[] => {
  const figures: Figure[] = []
  const thirds = inThirds(notes)
  for (let i = 0; i < notes.length; i++) {
    const found =
      enclosureAt(notes, i, 4, timeline, thirds) ??
      enclosureAt(notes, i, 3, timeline, thirds) ??
      doubleAt(notes, i, timeline)
    if (!found) continue
    figures.push(found)
    i = found.to - 1
  }
  return figures
}

/** Longest time before a chord change at which its note may come early, and after it at which one may come late, in beats. */
const EARLY = 1
const LATE = 2

/** A tone of the next chord, foreign to this one, right before the change, and not merely a step into what comes. */
const anticipates = (n: HeardNote, next: HeardNote | undefined, timeline: Timeline): boolean => {
  const { sounding, following } = n
  if (!sounding || !following || following.spot.spot.chord.symbol === sounding.spot.spot.chord.symbol) return false
  if (isChordTone(n) || sounding.to - n.at > EARLY * timeline.beat || !isToneOf(n, following)) return false
  if (endOf(n) > sounding.to || !next) return true
  return next.at >= sounding.to && apart(n, next) !== 1
}

/** A tone of the chord before that hangs over into this one (a first note hangs over from nothing), and then goes by step to where it belongs. */
const isLate = (n: HeardNote, next: HeardNote | undefined, first: boolean, timeline: Timeline): boolean => {
  if (!next || !near(n, next) || !isChordTone(next)) return false
  const sounding = n.sounding
  const over = soundingAt(timeline, endOf(n) - 1)
  if (sounding && over && over.from > sounding.from) {
    // Begun over the chord before and still sounding well into this one.
    const well = endOf(n) - over.from >= timeline.beat / 2
    return well && !isToneOf(n, over) && next.sounding?.from === over.from
  }
  if (first) return false
  if (!sounding || n.at - sounding.from > LATE * timeline.beat || isChordTone(n) || n.role === 'extension') return false
  const before = soundingAt(timeline, sounding.from - 1)
  const belonged =
    before !== null && before.spot.spot.chord.symbol !== sounding.spot.spot.chord.symbol && isToneOf(n, before)
  return belonged && next.sounding?.from === sounding.from
}

const side = (x: HeardNote, t: HeardNote): 'above' | 'below' => (x.pitch > t.pitch ? 'above' : 'below')

const between = (before: HeardNote | undefined, n: HeardNote, next: HeardNote | undefined): Melodic | null => {
  if (!next || !near(n, next)) return null
  if (before && near(before, n)) {
    if (before.pitch === next.pitch) return { kind: 'neighbour', of: next.n }
    if (Math.sign(stepTo(before, n)) === Math.sign(stepTo(n, next)) && isChordTone(before) && isChordTone(next))
      return { kind: 'passing', of: next.n }
  }
  return null
}

const approach = (n: HeardNote, next: HeardNote | undefined): Melodic | null => {
  if (!next || isChordTone(n) || !isChordTone(next) || !near(n, next)) return null
  if (apart(n, next) === 1 && !n.inHome) return { kind: `chromatic approach from ${side(n, next)}`, of: next.n }
  return next.onBeat && !n.onBeat ? { kind: `approach from ${side(n, next)}`, of: next.n } : null
}

/** What each note does to its neighbours, the first that applies; null where nothing does. */
export const melodicJobs = (
  notes: readonly HeardNote[],
  figures: readonly Figure[],
  timeline: Timeline,
): readonly (Melodic | null)[] => {
  const leading = coverOf(
    figures.map((f) => ({ from: f.from, to: f.to - 1, figure: f })),
    notes.length,
  )
  const jobs = notes.map((n, i): Melodic | null => {
    const follows = notes[i + 1]
    const next = follows && !isParted(n, follows, timeline) ? follows : undefined
    const figure = leading[i]?.figure
    if (figure) return { kind: figure.kind, of: figure.to }
    if (anticipates(n, next, timeline)) return { kind: 'anticipation', of: i }
    if (isLate(n, next, i === 0, timeline)) return { kind: 'delayed resolution', of: i + 1 }
    return isChordTone(n) ? null : (between(notes[i - 1], n, next) ?? approach(n, next))
  })
  const targets = new Set(figures.map((f) => f.to))
  return jobs.map((job, i) => job ?? (targets.has(i) ? { kind: 'target', of: i } : null))
}
