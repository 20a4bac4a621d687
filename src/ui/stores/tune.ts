import {
  type Analysis,
  analyseChart,
  type Chart,
  type Condensed,
  expand,
  type Instrument,
  type KeptOverride,
  type Override,
  readChart,
  readOverrides,
  splitChart,
  spotsInChart,
  transposeChart,
  transposeOverride,
} from '../../core/index.ts'
import type { AnalysisAsk } from '../../workers/start.ts'
import { analysedAside } from './analysing.ts'

/** The answer remembered for the arguments asked last: a key press moves about in a tune and does not change it. */
export const latest = <A extends readonly unknown[], R>(work: (...args: A) => R): ((...args: A) => R) => {
  let last: { readonly args: A; readonly answer: R } | null = null
  return (...args) => {
    if (!last?.args.every((a, i) => a === args[i])) last = { args, answer: work(...args) }
    return last.answer
  }
}

export const readOnce = latest(readChart)

/** A chart of more chords is analysed aside. */
const AT_ONCE = 600

export interface Tune {
  readonly chart: Chart
  readonly overrides: readonly Override[]
}

/** A chart as the player reads it, with what the player said of it. */
export const tuneAt = latest(
  (concert: Chart, kept: readonly KeptOverride[] | null, { written }: Instrument): Tune => ({
    chart: transposeChart(concert, written),
    overrides: readOverrides(kept).map((o) => transposeOverride(o, written)),
  }),
)

export const concertSpotsAt = latest((concert: Chart, { overrides }: Tune, repeats: boolean) =>
  spotsInChart(splitChart(concert, overrides), repeats),
)

const analysedHere = latest(
  ({ chart, overrides }: Tune, repeats: boolean): Analysis => analyseChart(chart, repeats, overrides),
)
const analysedThere = latest(
  (found: Condensed, { chart, overrides }: Tune, repeats: boolean): Analysis =>
    expand(found, chart, repeats, overrides),
)

/** The harmony of a tune, or null while it is worked out aside. */
export const analysisOf = (tune: Tune, ask: AnalysisAsk): Analysis | null => {
  const { repeats } = ask
  const chords = tune.chart.bars.reduce((sum, b) => sum + b.spots.length, 0)
  if (chords <= AT_ONCE) return analysedHere(tune, repeats)
  const found = analysedAside(ask)
  if (found === 'waiting') return null
  return found ? analysedThere(found, tune, repeats) : analysedHere(tune, repeats)
}
