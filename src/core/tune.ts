import { type Analysis, analyseChart } from './chart/analyse.ts'
import type { Chart } from './chart/chart.ts'
import { type KeptOverride, type Override, readOverrides, splitChart } from './chart/overrides.ts'
import { readChart } from './chart/read-chart.ts'
import { type Interval, UNISON } from './pitch/transpose.ts'
import { DEFAULT_SCHOOL, type School } from './reading/school.ts'
import { ok, type Result, type TextError } from './result.ts'
import { type Timeline, timelineOf } from './time/timeline.ts'
import { transposeChart, transposeOverride } from './transpose/chart.ts'

/** A chart with what the player said of it, what its chords do, and when they sound. */
export interface Tune {
  /** Its chords cut where the player cut them. */
  readonly chart: Chart
  readonly overrides: readonly Override[]
  /** Worked out when it is first asked for, and then remembered; so is `timeline`. */
  readonly analysis: Analysis
  readonly timeline: Timeline
}

export interface TuneOptions {
  /** The interval everything is moved by: to a player's written pitch. */
  readonly written?: Interval
  /** Whether the chart begins again where it ends; a sketch does not. */
  readonly repeats?: boolean
  readonly school?: School
}

const once = <T>(work: () => T): (() => T) => {
  let answer: { readonly value: T } | undefined
  return () => {
    answer ??= { value: work() }
    return answer.value
  }
}

/** A chart that was read, with what was said of it; both are in the pitch they are to be in. */
export const tuneOf = (
  read: Chart,
  overrides: readonly Override[],
  { repeats = true, school = DEFAULT_SCHOOL }: Omit<TuneOptions, 'written'> = {},
): Tune => {
  const chart = splitChart(read, overrides)
  const analysis = once(() => analyseChart(chart, repeats, overrides))
  const timeline = once(() => timelineOf(chart, analysis(), overrides, school))
  return {
    chart,
    overrides,
    get analysis() {
      return analysis()
    },
    get timeline() {
      return timeline()
    },
  }
}

/**
 * The one place where text becomes a chart, its analysis and its timeline: a chart's text and the player's corrections,
 * both in concert pitch. Gives the error of `readChart` where the text does not read.
 */
export const readTune = (
  text: string,
  overrides: readonly KeptOverride[] | null = null,
  { written = UNISON, ...options }: TuneOptions = {},
): Result<Tune, TextError> => {
  const read = readChart(text)
  if (!read.ok) return read
  const own = readOverrides(overrides)
  if (written.semitones === 0 && written.letters === 0) return ok(tuneOf(read.value, own, options))
  const moved = own.map((o) => transposeOverride(o, written))
  return ok(tuneOf(transposeChart(read.value, written), moved, options))
}
