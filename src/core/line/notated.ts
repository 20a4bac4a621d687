import type { Span } from '../time/bars.ts'
import { noteAround } from './line.ts'

/** Note values as they are written, in ticks; of a dotted one the dot is in it. */
export const VALUES = [
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
export type ValueName = (typeof VALUES)[number]['value']
const TRIPLETS = [
  { value: 'half', dots: 0, ticks: 1280 },
  { value: 'quarter', dots: 0, ticks: 640 },
  { value: 'eighth', dots: 0, ticks: 320 },
  { value: '16th', dots: 0, ticks: 160 },
] as const

/** One sign of the staff: a note or (null) a rest. Ticks from the start of the line. */
export interface Written {
  readonly note: number | null
  readonly at: number
  readonly for: number
  readonly value: ValueName
  readonly dots: 0 | 1
  readonly triplet: boolean
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
const near = (n: number): number => Math.round(n / FINEST) * FINEST

/** Notes and the rests between them, cut at the bar's ends and brought to what can be written. */
const piecesOf = (line: readonly Timed[], { from, to }: Span): readonly Piece[] => {
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

/** The longest value that can stand at the beginning of a piece. */
const valueAt = (at: number, left: number, bar: Span, beat: number): Omit<Written, 'note' | 'tied'> => {
  const within = at - bar.from
  if (isTriple(left) || isTriple(within)) {
    const toBeat = beat - (within % beat)
    const room = Math.min(left, isTriple(within) && within % beat !== 0 && left > toBeat ? toBeat : left)
    const found = TRIPLETS.find((v) => v.ticks <= room) ?? TRIPLETS[3]
    return { at, for: Math.min(found.ticks, left), value: found.value, dots: 0, triplet: true }
  }
  const found =
    VALUES.find((v) => v.ticks <= left && fits(at, v.ticks, left, bar, beat)) ?? VALUES.find((v) => v.ticks <= left)
  const { value, dots, ticks } = found ?? VALUES[9]
  return { at, for: Math.min(ticks, left), value, dots, triplet: false }
}

/** The signs of one bar: what is longer than one value, or would hide a beat, is tied. Rests are cut likewise. */
export const writtenBar = (line: readonly Timed[], bar: Span, beat: number): readonly Written[] =>
  piecesOf(line, bar).flatMap((piece) => {
    const signs: Written[] = []
    const end = piece.at + piece.for
    for (let at = piece.at; at < end; ) {
      const sign = valueAt(at, end - at, bar, beat)
      at += sign.for
      signs.push({ ...sign, note: piece.note, tied: piece.note !== null && (at < end || piece.tied) })
    }
    return signs
  })

/** Signs that make up a triplet together: three of a kind, or their like, in the time of two. By their places in the bar. */
export const tripletsIn = (signs: readonly Written[]): readonly (readonly number[])[] => {
  const groups: number[][] = []
  let group: number[] = []
  let sum = 0
  for (const [i, s] of signs.entries()) {
    if (!s.triplet) {
      group = []
      sum = 0
      continue
    }
    group.push(i)
    sum += s.for
    if (sum % 480 === 0 && group.length > 1) {
      groups.push(group)
      group = []
      sum = 0
    }
  }
  return groups
}
