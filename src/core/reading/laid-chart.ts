import type { AnalysedSpot } from '../chart/analyse.ts'
import { type Bar, barTicks, type Chart, spotsOf } from '../chart/chart.ts'
import { type Chord, tonesOf } from '../chord/chord.ts'
import { groupedBy } from '../grouped.ts'
import { notesOverlay } from '../material/overlay.ts'
import { chordInterval } from '../pitch/transpose.ts'
import { transposeChord } from '../transpose/chord.ts'
import { placeOf, type Reading, readOver } from './read.ts'
import type { School } from './school.ts'
import type { Weights } from './weights.ts'

/** A chord of the other chart over one of this: what both sound at that moment. */
export interface LaidChord {
  readonly spot: AnalysedSpot
  readonly laid: Chord
  readonly reading: Reading
}

/** One bar of this chart with what is laid over it; figures are weighted by length, landing null where nothing lands. */
export interface LaidBar {
  readonly bar: Bar
  readonly chords: readonly LaidChord[]
  readonly fade: number
  readonly landing: number | null
}

export interface LaidChart {
  /** Semitones by which the other chart is moved, -5..6. */
  readonly shift: number
  readonly bars: readonly LaidBar[]
  readonly fade: number
  readonly landing: number | null
}

/** The other chart's chord at a moment of this one, both counted in bars; it begins again where it ends. */
const soundingAt = (other: Chart, bars: number): Chord | null => {
  const at = bars % other.bars.length
  const bar = other.bars[Math.floor(at)]
  const tick = bar ? (at - Math.floor(at)) * barTicks(bar.metre) : 0
  const spot = bar?.spots.filter((s) => s.at <= tick + 1).at(-1)
  return spot?.chord.kind === 'chord' ? spot.chord : null
}

const mean = (items: readonly { readonly value: number | null; readonly weight: number }[]): number | null => {
  const known = items.filter((i): i is { value: number; weight: number } => i.value !== null)
  const weight = known.reduce((sum, i) => sum + i.weight, 0)
  return weight === 0 ? null : Math.round(known.reduce((sum, i) => sum + i.value * i.weight, 0) / weight)
}

const figures = (chords: readonly LaidChord[]) => ({
  fade: mean(chords.map((c) => ({ value: c.reading.fade, weight: c.spot.spot.length }))) ?? 0,
  landing: mean(chords.map((c) => ({ value: c.reading.landing, weight: c.spot.spot.length }))),
})

/** Another chart's chords, moved by semitones, laid over this one's and read there. Source: theory page, section 8. */
export const layChart = (
  chart: Chart,
  spots: readonly AnalysedSpot[],
  other: Chart,
  shift: number,
  school: School,
  weights: Weights,
): LaidChart => {
  const first = chart.bars[0]?.number ?? 1
  const laid = spots.flatMap((spot): readonly LaidChord[] => {
    const { chord, bar, at, metre } = spot.spot
    const over = soundingAt(other, bar - first + at / barTicks(metre))
    if (chord.kind === 'no chord' || !over) return []
    const moved = transposeChord(over, chordInterval(shift))
    const [root = moved.root, ...rest] = tonesOf(moved).map((t) => t.note)
    const overlay = notesOverlay([root, ...rest])
    return [{ spot, laid: moved, reading: readOver(overlay, placeOf(chord, spot.next, school, spot.job), weights) }]
  })
  const inBars = groupedBy(laid, (l) => l.spot.spot.bar)
  const bars = chart.bars.map((bar): LaidBar => {
    const chords = inBars.get(bar.number) ?? []
    return { bar, chords, ...figures(chords) }
  })
  return { shift, bars, ...figures(laid) }
}

const SHIFTS = [0, 1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6] as const

/** All twelve transpositions of another chart over this one, the nearest first; spots without a chord in either are left out. */
export const layInAllKeys = (
  chart: Chart,
  spots: readonly AnalysedSpot[],
  other: Chart,
  school: School,
  weights: Weights,
): readonly LaidChart[] =>
  spotsOf(other).some((s) => s.chord.kind === 'chord')
    ? SHIFTS.map((shift) => layChart(chart, spots, other, shift, school, weights))
    : []

/** The transposition that lands best. */
export const bestLanding = (all: readonly LaidChart[]): LaidChart | undefined =>
  [...all].sort((a, b) => (b.landing ?? -1) - (a.landing ?? -1))[0]
/** The transposition whose fade is nearest to a wish. */
export const nearestFade = (all: readonly LaidChart[], wished: number): LaidChart | undefined =>
  [...all].sort((a, b) => Math.abs(a.fade - wished) - Math.abs(b.fade - wished))[0]
