import { type Condensed, condense, type Interval, type KeptOverride, readTune } from '../core/index.ts'

/** A chart to be analysed, in words that can be sent: as it is kept, and how far it is moved. */
export interface AnalysisAsk {
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly written: Interval
  readonly repeats: boolean
}

/** The harmony of a chart; null where it does not read. */
export const analysing = ({ text, overrides, written, repeats }: AnalysisAsk): Condensed | null => {
  const tune = readTune(text, overrides, { written, repeats })
  return tune.ok ? condense(tune.value.analysis) : null
}
