import type { Harmony } from '../chord/chord.ts'
import { groupedBy } from '../grouped.ts'
import type { Note } from '../pitch/note.ts'
import { TICKS_PER_QUARTER, type Ticks, ticks } from '../pitch/units.ts'
import type { Feel } from './feel.ts'

export interface Metre {
  readonly beats: number
  readonly unit: 2 | 4 | 8 | 16
}

export interface Key {
  readonly tonic: Note
  readonly mode: 'major' | 'minor'
}

/** One chord for at most one bar. `at` and `length` count from the bar's start; `text` is where it stands in the text. */
export interface Spot {
  readonly bar: number
  readonly at: Ticks
  readonly length: Ticks
  readonly chord: Harmony
  readonly text: { readonly at: number; readonly end: number }
}

/** A bar as it is played: repeats are played out, so one written bar may stand here more than once. */
export interface Bar {
  /** Counted from 1 as played; a pickup is bar 0. */
  readonly number: number
  /** Name of the section that starts here. */
  readonly section: string | null
  /** Which written bar it is, from 0. */
  readonly written: number
  readonly spots: readonly Spot[]
}

/** A bar as it stands in the text. */
export interface WrittenBar {
  readonly section: string | null
  /** `|:` before it, `:|` after it. */
  readonly opens: boolean
  readonly closes: boolean
  /** The passes of the ending that starts here: `1.` is [1]. */
  readonly endings: readonly number[]
  readonly spots: readonly Omit<Spot, 'bar'>[]
  readonly text: { readonly at: number; readonly end: number }
}

export interface Chart {
  readonly title: string
  readonly key: Key | null
  readonly metre: Metre
  readonly tempo: number
  /** Beats of a first bar that is shorter, or 0. */
  readonly pickup: number
  /** How a band plays it, where the text says so. */
  readonly feel?: Feel | undefined
  readonly written: readonly WrittenBar[]
  readonly bars: readonly Bar[]
}

export const beatTicks = (metre: Metre): Ticks => ticks((TICKS_PER_QUARTER * 4) / metre.unit)
export const barTicks = (metre: Metre): Ticks => ticks(beatTicks(metre) * metre.beats)

/** 1-based beat of a spot, with its fraction: 3.5 is the and of three. */
export const beatOf = (spot: Spot, metre: Metre): number => 1 + spot.at / beatTicks(metre)
export const beatsOf = (spot: Spot, metre: Metre): number => spot.length / beatTicks(metre)
export const spotsOf = (chart: Chart): readonly Spot[] => chart.bars.flatMap((b) => b.spots)
export const keyName = (key: Key): string => `${key.tonic.name} ${key.mode}`

/** Spots, or what is told of them, by the number of their bar. */
export const byBar = <S extends { readonly spot: Spot }>(spots: readonly S[]): ReadonlyMap<number, readonly S[]> =>
  groupedBy(spots, (s) => s.spot.bar)
