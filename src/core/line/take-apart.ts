import { transposeChart, transposeOverride } from '../ask/transpose-question.ts'
import { analyseChart } from '../chart/analyse.ts'
import type { Chart } from '../chart/chart.ts'
import { type KeptOverride, readOverrides, splitChart } from '../chart/overrides.ts'
import { readChart } from '../chart/read-chart.ts'
import type { Interval } from '../pitch/transpose.ts'
import { midi } from '../pitch/units.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import { type Audit, auditLine } from './audit.ts'
import { type Line, lineOf } from './line.ts'
import { timelineOf } from './timeline.ts'

/** A line to be taken apart, in plain values: chart and notes in concert pitch, read as `written` has it. */
export interface LineAsk {
  readonly text: string
  readonly said: readonly KeptOverride[] | null
  readonly written: Interval
  readonly school: School
  readonly weights: Weights
  readonly notes: Line
}

/** A line taken apart over its chart, both in written pitch. */
export interface Taken {
  readonly chart: Chart
  readonly audit: Audit
}

/** Takes a line apart from the words of its chart; null where those do not read. */
export const takeLineApart = ({ text, said, written, school, weights, notes }: LineAsk): Taken | null => {
  const read = readChart(text)
  if (!read.ok) return null
  const own = readOverrides(said).map((o) => transposeOverride(o, written))
  const chart = splitChart(transposeChart(read.value, written), own)
  const timeline = timelineOf(chart, analyseChart(chart, true, own), own, school)
  const line = lineOf(notes.map((n) => ({ at: n.at, for: n.for, pitch: midi(n.pitch + written.semitones) })))
  return { chart, audit: auditLine(line, timeline, weights) }
}
