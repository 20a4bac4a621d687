import { barTicks, type Metre, TICKS_PER_QUARTER } from '../../core/index.ts'

/** A random number from 0 to 1, the same for the same seed. */
export const seeded = (seed: number): (() => number) => {
  let state = seed
  return () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648
    return state / 2_147_483_648
  }
}

/** A note or a rest as it is written; `tie` goes on into the next. Lengths in ticks. */
export interface WrittenNote {
  readonly at: number
  readonly for: number
  readonly value: 'half' | 'quarter' | 'eighth' | '16th'
  readonly dots: 0 | 1
  readonly triplet: 'start' | 'on' | 'stop' | null
  /** Null for a rest. */
  readonly pitch: { readonly letter: number; readonly alter: number; readonly octave: number } | null
  readonly tie: boolean
}

export interface PieceBar {
  readonly metre: Metre
  readonly fifths: number
  readonly length: number
  readonly notes: readonly WrittenNote[]
  readonly chord: (typeof CHORDS)[number]
  readonly opens: boolean
  readonly closes: boolean
  readonly ending: number | null
}

/** A piece by nobody: its bars as they are written, and the order in which they are played. */
export interface Piece {
  readonly bars: readonly PieceBar[]
  readonly order: readonly number[]
}

/** Chords with how a score names their kind. */
export const CHORDS = [
  { root: 'C', suffix: 'maj7', kind: 'major-seventh' },
  { root: 'D', suffix: 'm7', kind: 'minor-seventh' },
  { root: 'G', suffix: '7', kind: 'dominant' },
  { root: 'A', suffix: '6', kind: 'major-sixth' },
  { root: 'B', suffix: 'm7b5', kind: 'half-diminished' },
  { root: 'E', suffix: 'm', kind: 'minor' },
] as const

const Q = TICKS_PER_QUARTER
const GROUPS = [
  [{ for: Q, value: 'quarter', dots: 0 }],
  [
    { for: Q / 2, value: 'eighth', dots: 0 },
    { for: Q / 2, value: 'eighth', dots: 0 },
  ],
  [
    { for: (Q * 3) / 4, value: 'eighth', dots: 1 },
    { for: Q / 4, value: '16th', dots: 0 },
  ],
  Array.from({ length: 4 }, () => ({ for: Q / 4, value: '16th', dots: 0 }) as const),
  Array.from({ length: 3 }, () => ({ for: Q / 3, value: 'eighth', dots: 0, triplet: true }) as const),
  [{ for: 2 * Q, value: 'half', dots: 0 }],
  [
    { for: (Q * 3) / 2, value: 'quarter', dots: 1 },
    { for: Q / 2, value: 'eighth', dots: 0 },
  ],
] as const
const METRES: readonly Metre[] = [
  { beats: 4, unit: 4 },
  { beats: 3, unit: 4 },
  { beats: 5, unit: 4 },
  { beats: 2, unit: 4 },
]

const notesFor = (length: number, random: () => number, plain: boolean): readonly WrittenNote[] => {
  const notes: WrittenNote[] = []
  const below = (n: number): number => Math.floor(random() * n)
  for (let at = 0; at < length; ) {
    const group = GROUPS[below(GROUPS.length)] as (typeof GROUPS)[number]
    const size = group.reduce((sum, g) => sum + g.for, 0)
    if (at + size > length) continue
    for (const [i, g] of group.entries()) {
      const isTriplet = 'triplet' in g
      notes.push({
        ...{ at, for: g.for, value: g.value, dots: g.dots },
        triplet: isTriplet ? (i === 0 ? 'start' : i === group.length - 1 ? 'stop' : 'on') : null,
        pitch:
          random() < 0.15 && !(plain && isTriplet)
            ? null
            : { letter: below(7), alter: [0, 0, 0, 1, -1][below(5)] as number, octave: 4 + below(2) },
        tie: false,
      })
      at += g.for
    }
  }
  return notes
}

/** Some notes go on into the next, of the same pitch; never over a place where something else may follow. */
const withTies = (notes: readonly WrittenNote[], random: () => number): readonly WrittenNote[] => {
  const tied = notes.map((n) => ({ ...n }))
  for (const [i, n] of tied.entries()) {
    const next = tied[i + 1]
    if (!next || n.pitch === null || next.pitch === null || n.triplet || next.triplet || random() > 0.2) continue
    tied[i] = { ...n, tie: true }
    tied[i + 1] = { ...next, pitch: n.pitch }
  }
  return tied
}

/**
 * A piece of parts, each played once, twice, or twice with two endings; key and metre may change between them. A `plain`
 * one has one metre and no rest in a triplet.
 */
export const pieceOf = (seed: number, plain = false): Piece => {
  const random = seeded(seed)
  const below = (n: number): number => Math.floor(random() * n)
  const bars: PieceBar[] = []
  const order: number[] = []
  let metre = METRES[below(METRES.length)] as Metre
  for (let part = 0; part < 2 + below(3); part++) {
    if (!plain) metre = METRES[below(METRES.length)] as Metre
    const fifths = below(9) - 4
    const bar = (opens: boolean, closes: boolean, ending: number | null): number => {
      const length = barTicks(metre)
      const notes = withTies(notesFor(length, random, plain), random)
      const chord = CHORDS[below(CHORDS.length)] as (typeof CHORDS)[number]
      return bars.push({ metre, fifths, length, notes, chord, opens, closes, ending }) - 1
    }
    const kind = below(3)
    const size = 1 + below(3)
    const body = Array.from({ length: size }, (_, i) => bar(kind > 0 && i === 0, kind === 1 && i === size - 1, null))
    if (kind === 0) order.push(...body)
    if (kind === 1) order.push(...body, ...body)
    if (kind === 2) order.push(...body, bar(false, true, 1), ...body, bar(false, false, 2))
  }
  return { bars, order }
}

const NATURAL = [0, 2, 4, 5, 7, 9, 11]
export const midiOf = ({ letter, alter, octave }: NonNullable<WrittenNote['pitch']>): number =>
  12 * (octave + 1) + (NATURAL[letter] ?? 0) + alter

/** What is heard of a piece, tied notes as one: moment, length, pitch. */
export const heardOf = ({ bars, order }: Piece): readonly (readonly [number, number, number])[] => {
  const heard: [number, number, number][] = []
  let from = 0
  for (const index of order) {
    const bar = bars[index] as PieceBar
    let goesOn = false
    for (const n of bar.notes) {
      const last = heard.at(-1)
      if (n.pitch && goesOn && last) last[1] += n.for
      else if (n.pitch) heard.push([from + n.at, n.for, midiOf(n.pitch)])
      goesOn = n.tie
    }
    from += bar.length
  }
  return heard
}
