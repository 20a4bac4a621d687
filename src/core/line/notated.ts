import { groupedBy } from '../grouped.ts'
import { TICKS_PER_QUARTER } from '../pitch/units.ts'
import type { Span } from '../time/bars.ts'
import { noteAround } from './line.ts'

/** Note values as they are written, in ticks; of a dotted one the dot is in it. */
export const NOTE_VALUES = [
  { value: 'whole', dots: 0, ticks: 3840 },
  { value: 'half', dots: 1, ticks: 2880 },
  { value: 'half', dots: 0, ticks: 1920 },
  { value: 'quarter', dots: 1, ticks: 1440 },
  { value: 'quarter', dots: 0, ticks: 960 },
  { value: 'eighth', dots: 1, ticks: 720 },
  { value: 'eighth', dots: 0, ticks: 480 },
  { value: '16th', dots: 1, ticks: 360 },
  { value: '16th', dots: 0, ticks: 240 },
  { value: '32nd', dots: 0, ticks: 120 },
] as const
export type ValueName = (typeof NOTE_VALUES)[number]['value'] | '64th'
const TRIPLETS = [
  { value: 'half', dots: 0, ticks: 1280 },
  { value: 'quarter', dots: 0, ticks: 640 },
  { value: 'eighth', dots: 0, ticks: 320 },
  { value: '16th', dots: 0, ticks: 160 },
  { value: '32nd', dots: 0, ticks: 80 },
  { value: '64th', dots: 0, ticks: 40 },
] as const

/** One sign of the staff: a note or (null) a rest. Ticks from the start of the line. */
export interface Written {
  readonly note: number | null
  readonly at: number
  readonly for: number
  readonly value: ValueName
  readonly dots: 0 | 1
  /** Three in the time of two, or five in the time of four. */
  readonly tuplet: 3 | 5 | null
  /** Whether it is tied to the sign after it. */
  readonly tied: boolean
}

interface Piece {
  readonly note: number | null
  readonly at: number
  readonly for: number
  readonly tied: boolean
}

interface Timed {
  readonly at: number
  readonly for: number
}

const FINEST = 40
const isNear = (n: number, step: number): boolean => Math.abs(n - Math.round(n / step) * step) <= 1

/** The moments of a line within a bar, from the note around its beginning on. */
const momentsIn = (line: readonly Timed[], { from, to }: Span): readonly number[] => {
  const moments: number[] = []
  for (let i = Math.max(0, noteAround(line, from) - 1); i < line.length; i++) {
    const n = line[i] as Timed
    if (n.at >= to) break
    moments.push(n.at, Math.min(n.at + n.for, line[i + 1]?.at ?? Infinity))
  }
  return moments.filter((m) => m > from && m < to)
}

/** Beats of a bar that are divided in five, counted from 0; none is longer than a quarter. */
interface Fives {
  readonly beat: number
  readonly beats: ReadonlySet<number>
}
const isInFive = ({ beat, beats }: Fives, within: number): boolean => beats.has(Math.floor(within / beat))

/** Where all stands on fifths of the beat and not on what else can be written. */
const fivesIn = (line: readonly Timed[], bar: Span, beatOfMetre: number): Fives => {
  const beat = Math.min(TICKS_PER_QUARTER, beatOfMetre)
  const byBeat = groupedBy(momentsIn(line, bar), (m) => Math.floor((m - bar.from + 1) / beat))
  const beats = [...byBeat].flatMap(([n, moments]) =>
    moments.every((m) => isNear(m - bar.from, beat / 5)) && !moments.every((m) => isNear(m - bar.from, FINEST))
      ? [n]
      : [],
  )
  return { beat, beats: new Set(beats) }
}

/** Brings moments to what can be written where they fall. */
type Near = (moment: number) => number
const nearIn = (bar: Span, fives: Fives): Near => {
  const step = (n: number): number => (isInFive(fives, n - bar.from + 1) ? fives.beat / 5 : FINEST)
  return (n) => bar.from + Math.round((n - bar.from) / step(n)) * step(n)
}

/** Notes and the rests between them, cut at the bar's ends and brought to what can be written. */
const piecesOf = (line: readonly Timed[], { from, to }: Span, near: Near): readonly Piece[] => {
  const pieces: Piece[] = []
  let at = from
  const rest = (until: number): void => {
    if (until > at) pieces.push({ note: null, at, for: until - at, tied: false })
    at = Math.max(at, until)
  }
  // One before the note around the bar line: it may be brought over it.
  for (let i = Math.max(0, noteAround(line, from) - 1); i < line.length; i++) {
    const n = line[i] as Timed
    const begin = Math.max(from, near(n.at))
    if (begin >= to) break
    const end = Math.min(near(n.at + n.for), near(line[i + 1]?.at ?? Infinity))
    if (end <= from || end <= begin) continue
    rest(begin)
    const until = Math.min(end, to)
    pieces.push({ note: i, at, for: until - at, tied: end > to })
    at = until
  }
  rest(to)
  return pieces
}

/** Whether a value may begin here: on a beat, or off it without hiding the next beat; a quarter may stand off the beat. */
const fits = (at: number, length: number, left: number, bar: Span, beat: number): boolean => {
  const within = at - bar.from
  const off = within % beat
  if (off === 0) return length <= beat || length % beat === 0 || within % (2 * beat) === 0 || length < 2 * beat
  if (off + length <= beat) return within % Math.min(length, beat / 2) === 0 || length === 720
  const half = Math.floor((bar.to - bar.from) / beat / 2) * beat
  return (
    off === beat / 2 && length === beat && left === beat && (within + length <= half || within >= half || half === 0)
  )
}

const isTriple = (n: number): boolean => n % 120 !== 0

type Value = Omit<Written, 'note' | 'tied'>

/** In a beat of five: the longest value up to the beat's end. */
const valueInFive = (at: number, left: number, bar: Span, beat: number): Value => {
  const room = Math.min(left, beat - ((at - bar.from) % beat))
  const found = NOTE_VALUES.find((v) => (v.ticks * 4) / 5 <= room) ?? NOTE_VALUES[9]
  const { value, dots, ticks } = found
  return { at, for: Math.min(room, (ticks * 4) / 5), value, dots, tuplet: 5 }
}

/** The longest value that can stand at the beginning of a piece. */
const valueAt = (at: number, left: number, bar: Span, beat: number, fives: Fives): Value => {
  const within = at - bar.from
  const toBeat = beat - (within % beat)
  if (isInFive(fives, within) && (within % fives.beat !== 0 || left < fives.beat))
    return valueInFive(at, left, bar, fives.beat)
  // What goes on into a beat of five is cut before it.
  const next = [...fives.beats].map((n) => n * fives.beat).find((n) => n > within) ?? Infinity
  if (within + left > next) return valueAt(at, next - within, bar, beat, fives)
  if (isTriple(left) || isTriple(within)) {
    const room = Math.min(left, isTriple(within) && within % beat !== 0 && left > toBeat ? toBeat : left)
    const found = TRIPLETS.find((v) => v.ticks <= room) ?? TRIPLETS[5]
    return { at, for: Math.min(found.ticks, left), value: found.value, dots: 0, tuplet: 3 }
  }
  const found =
    NOTE_VALUES.find((v) => v.ticks <= left && fits(at, v.ticks, left, bar, beat)) ??
    NOTE_VALUES.find((v) => v.ticks <= left)
  const { value, dots, ticks } = found ?? NOTE_VALUES[9]
  return { at, for: Math.min(ticks, left), value, dots, tuplet: null }
}

const cutAt = (piece: Piece, moment: number): readonly Piece[] =>
  moment <= piece.at || moment >= piece.at + piece.for
    ? [piece]
    : [
        { ...piece, for: moment - piece.at, tied: piece.note !== null },
        { ...piece, at: moment, for: piece.at + piece.for - moment },
      ]

/**
 * The signs of one bar: what is longer than one value, or would hide a beat, is tied; so is what sounds on over a moment of
 * `cuts`. Rests are cut likewise.
 */
export const writtenBar = (
  line: readonly Timed[],
  bar: Span,
  beat: number,
  cuts: readonly number[] = [],
): readonly Written[] => {
  const fives = fivesIn(line, bar, beat)
  const pieces = piecesOf(line, bar, nearIn(bar, fives))
  return cuts
    .reduce((all, c) => all.flatMap((p) => cutAt(p, c)), pieces)
    .flatMap((piece) => {
      const signs: Written[] = []
      const end = piece.at + piece.for
      for (let at = piece.at; at < end; ) {
        const sign = valueAt(at, end - at, bar, beat, fives)
        at += sign.for
        signs.push({ ...sign, note: piece.note, tied: piece.note !== null && (at < end || piece.tied) })
      }
      return signs
    })
}

/** Signs that make up a tuplet together, by their places in the bar: three, or their like, in the time of two; five in that of four. */
export interface Tuplet {
  readonly places: readonly number[]
  readonly of: 3 | 5
}

export const IN_TIME_OF = { 3: 2, 5: 4 } as const

export const tupletsIn = (signs: readonly Written[]): readonly Tuplet[] => {
  const groups: Tuplet[] = []
  let group: number[] = []
  let sum = 0
  for (const [i, s] of signs.entries()) {
    if (s.tuplet === null || s.tuplet !== signs[group[0] ?? i]?.tuplet) {
      group = []
      sum = 0
    }
    if (s.tuplet === null) continue
    group.push(i)
    sum += s.for
    if (sum % 480 === 0 && group.length > 1) {
      groups.push({ places: group, of: s.tuplet })
      group = []
      sum = 0
    }
  }
  return groups
}
