import type { Chart } from '../chart/chart.ts'
import type { KeptOverride } from '../chart/overrides.ts'
import type { Interval } from '../pitch/transpose.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import { readTune } from '../tune.ts'
import { type Audit, auditLine } from './audit.ts'
import { type Line, lineOf, movedNote } from './line.ts'

/** A line to be taken apart, in plain values: chart and notes in concert pitch, read as `written` has it. */
export interface LineAsk {
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly written: Interval
  readonly school: School
  readonly weights: Weights
  readonly notes: Line
}

/** A line taken apart over its chart, both in written pitch. */
export interface LineAnalysis {
  readonly chart: Chart
  readonly audit: Audit
}

/** Takes a line apart from the words of its chart; null where those do not read. */
export const analyseLine = ({ text, overrides, written, school, weights, notes }: LineAsk): LineAnalysis | null => {
  const tune = readTune(text, overrides, { written, school })
  if (!tune.ok) return null
  const { chart, timeline } = tune.value
  const line = lineOf(notes.map((n) => movedNote(n, written)))
  return { chart, audit: auditLine(line, timeline, weights) }
}
