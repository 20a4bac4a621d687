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
  /** Its bar's. */
  readonly metre: Metre
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
  readonly metre: Metre
  /** The key the text names for it, here or before. */
  readonly key: Key | null
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
  readonly metre: Metre
  readonly key: Key | null
  readonly spots: readonly Omit<Spot, 'bar'>[]
  readonly text: { readonly at: number; readonly end: number }
}

export interface Chart {
  readonly title: string
  /** The one it names at its beginning. */
  readonly key: Key | null
  /** The one it begins in; bars may have others. */
  readonly metre: Metre
  /** Beats of that metre a minute; a note value lasts as long in every other. */
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

/** How long the bars are of which a chart has most. */
export const usualBar = ({ bars, metre }: Chart): Ticks => {
  const counts = new Map<Ticks, number>([[barTicks(metre), 0]])
  for (const b of bars) counts.set(barTicks(b.metre), (counts.get(barTicks(b.metre)) ?? 0) + 1)
  return [...counts].reduce((most, c) => (c[1] > most[1] ? c : most))[0]
}

export const sameMetre = (a: Metre, b: Metre): boolean => a.beats === b.beats && a.unit === b.unit
export const metreName = ({ beats, unit }: Metre): string => `${beats}/${unit}`

/** A bar's metre, and the key the text names for it. */
type InForce = Pick<Bar, 'metre' | 'key'>
/** What a bar changes of the metre and the key of the one before it; null where that stays, as at the beginning. */
export const changesOf = (bar: InForce, before: InForce | undefined): { metre: Metre | null; key: Key | null } => ({
  metre: before && !sameMetre(before.metre, bar.metre) ? bar.metre : null,
  key: before && bar.key && !sameKeyName(before.key, bar.key) ? bar.key : null,
})

/** Bars that begin with another metre than the one before them, by their numbers. */
export const newMetres = ({ bars }: Pick<Chart, 'bars'>): ReadonlyMap<number, Metre> =>
  new Map(
    bars.flatMap((bar, i) => {
      const { metre } = changesOf(bar, bars[i - 1])
      return metre ? [[bar.number, metre] as const] : []
    }),
  )

/** 1-based beat of a spot, with its fraction: 3.5 is the and of three. */
export const beatOf = (spot: Spot): number => 1 + spot.at / beatTicks(spot.metre)
export const beatsOf = (spot: Spot): number => spot.length / beatTicks(spot.metre)
export const spotsOf = (chart: Chart): readonly Spot[] => chart.bars.flatMap((b) => b.spots)
const sameKeyName = (a: Key | null, b: Key | null): boolean => (a && keyName(a)) === (b && keyName(b))
export const keyName = (key: Key): string => `${key.tonic.name} ${key.mode}`

/** Spots, or what is told of them, by the number of their bar. */
export const byBar = <S extends { readonly spot: Spot }>(spots: readonly S[]): ReadonlyMap<number, readonly S[]> =>
  groupedBy(spots, (s) => s.spot.bar)
