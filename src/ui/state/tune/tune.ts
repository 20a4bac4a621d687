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
} from '../../../core/index.ts'
import type { AnalysisAsk } from '../../../workers/start.ts'
import { analysedInWorker } from './analysing.ts'
import { latest } from './latest.ts'

export const readOnce = latest(readChart)

/** A chart of more chords is analysed in a worker. */
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

/** The harmony of a tune, or null while it is worked out in a worker. */
export const analysisOf = (tune: Tune, ask: AnalysisAsk): Analysis | null => {
  const { repeats } = ask
  const chords = tune.chart.bars.reduce((sum, b) => sum + b.spots.length, 0)
  if (chords <= AT_ONCE) return analysedHere(tune, repeats)
  const found = analysedInWorker(ask)
  if (found === 'waiting') return null
  return found ? analysedThere(found, tune, repeats) : analysedHere(tune, repeats)
}
