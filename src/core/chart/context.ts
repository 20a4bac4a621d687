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
const nextDifferent = (chord: Harmony, after: readonly Chord[]): Chord | null =>
  after.find((c) =>
    chord.kind === 'chord' && isDominant(chord) ? c.root.pc !== chord.root.pc : !sameChord(c, chord),
  ) ?? null

const following = (spots: readonly Spot[], index: number, repeats: boolean): readonly Chord[] =>
  [...spots.slice(index + 1), ...(repeats ? spots.slice(0, index + 1) : [])].flatMap(({ chord }) =>
    chord.kind === 'chord' ? [chord] : [],
  )

/**
 * A dominant held for several spots is static until the last before it resolves; others look past their own repeats.
 * N.C. is looked through. Where the chart repeats, the last spot is
 * followed by the first; else by nothing.
 */
export const spotsInChart = (chart: Chart, repeats: boolean): readonly SpotInChart[] => {
  const spots = spotsOf(chart)
  return spots.map((spot, index) => {
    const after = following(spots, index, repeats)
    const next = after[0] ?? null
    const held = next !== null && sameChord(next, spot.chord)
    const job: Job | null =
      held && isHeldDominant(spot.chord)
        ? { kind: 'static dominant' }
        : jobFromNext(spot.chord, nextDifferent(spot.chord, after))
    return { index, spot, next, job }
  })
}
