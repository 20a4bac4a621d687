import type { Harmony } from '../chord/chord.ts'
import type { Note } from '../pitch/note.ts'
import { TICKS_PER_QUARTER, type Ticks, ticks } from '../pitch/units.ts'

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

export interface Bar {
  readonly number: number
  /** Name of the section that starts here. */
  readonly section: string | null
  readonly spots: readonly Spot[]
}

export interface Chart {
  readonly title: string
  readonly key: Key | null
  readonly metre: Metre
  readonly tempo: number
  readonly bars: readonly Bar[]
}

export const beatTicks = (metre: Metre): Ticks => ticks((TICKS_PER_QUARTER * 4) / metre.unit)
export const barTicks = (metre: Metre): Ticks => ticks(beatTicks(metre) * metre.beats)

/** 1-based beat of a spot, with its fraction: 3.5 is the and of three. */
export const beatOf = (spot: Spot, metre: Metre): number => 1 + spot.at / beatTicks(metre)
export const beatsOf = (spot: Spot, metre: Metre): number => spot.length / beatTicks(metre)
export const spotsOf = (chart: Chart): readonly Spot[] => chart.bars.flatMap((b) => b.spots)
export const keyName = (key: Key): string => `${key.tonic.name} ${key.mode}`
