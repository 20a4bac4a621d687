import { type Chord, type Harmony, isDominant } from '../chord/chord.ts'
import { type Chart, type Spot, spotsOf } from './chart.ts'
import { type Job, jobFromNext } from './job.ts'

/** A spot with what follows it. `next` is where landing is measured; the job looks on to the next different chord. */
export interface SpotInChart {
  readonly index: number
  readonly spot: Spot
  readonly next: Chord | null
  readonly job: Job | null
}

const sameChord = (a: Harmony, b: Harmony): boolean => a.symbol === b.symbol

const isHeldDominant = (chord: Harmony): boolean => chord.kind === 'chord' && chord.family === 'dominant'

/** A dominant looks past every chord on its own root: a suspension that opens is still the same dominant. */
const isDifferent = (chord: Harmony, next: Chord): boolean =>
  chord.kind === 'chord' && isDominant(chord) ? next.root.pc !== chord.root.pc : !sameChord(next, chord)

/** The first chord after a spot that is looked for, round the corner where the chart repeats; N.C. is looked through. */
const firstAfter = (
  spots: readonly Spot[],
  index: number,
  repeats: boolean,
  wanted: (next: Chord) => boolean,
): Chord | null => {
  const last = repeats ? index + spots.length : spots.length - 1
  for (let i = index + 1; i <= last; i++) {
    const { chord } = spots[i % spots.length] as Spot
    if (chord.kind === 'chord' && wanted(chord)) return chord
  }
  return null
}

/**
 * A dominant held for several spots is static until the last before it resolves; others look past their own repeats.
 * Where the chart repeats, the last spot is followed by the first; else by nothing.
 */
export const spotsInChart = (chart: Chart, repeats: boolean): readonly SpotInChart[] => {
  const spots = spotsOf(chart)
  return spots.map((spot, index) => {
    const next = firstAfter(spots, index, repeats, () => true)
    const held = next !== null && sameChord(next, spot.chord)
    const job: Job | null =
      held && isHeldDominant(spot.chord)
        ? { kind: 'static dominant' }
        : jobFromNext(
            spot.chord,
            firstAfter(spots, index, repeats, (c) => isDifferent(spot.chord, c)),
          )
    return { index, spot, next, job }
  })
}
