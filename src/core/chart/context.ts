import type { Chord, Harmony } from '../chord/chord.ts'
import { type Chart, type Spot, spotsOf } from './chart.ts'

/** A spot with the chord that follows it, into which landing is measured. */
export interface SpotInChart {
  readonly index: number
  readonly spot: Spot
  readonly next: Chord | null
}

const chordOf = (harmony: Harmony | undefined): Chord | null => (harmony?.kind === 'chord' ? harmony : null)

/** The first chord after a spot, round the corner where the chart repeats; N.C. is looked through. */
const nextChord = (spots: readonly Spot[], index: number, repeats: boolean): Chord | null => {
  const last = repeats ? index + spots.length : spots.length - 1
  for (let i = index + 1; i <= last; i++) {
    const chord = chordOf(spots[i % spots.length]?.chord)
    if (chord) return chord
  }
  return null
}

/** The spots of a chart in order. Where it repeats, the last is followed by the first; else by nothing. */
export const spotsInChart = (chart: Chart, repeats: boolean): readonly SpotInChart[] => {
  const spots = spotsOf(chart)
  return spots.map((spot, index) => ({ index, spot, next: nextChord(spots, index, repeats) }))
}
