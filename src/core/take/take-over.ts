import type { Chart } from '../chart/chart.ts'
import { readOverlay } from '../material/read-overlay.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import { fail, ok, type Result } from '../result.ts'
import { barsAt, momentOf, type Span, spanOfBars } from '../time/bars.ts'
import { loopedFrom, loopedTimeline } from '../time/looped.ts'
import type { Tune } from '../tune.ts'
import type { PlannedFrom } from './plan.ts'
import { msPerTick, type PlayedNote } from './played.ts'
import { readTake, type TakeReading } from './read-take.ts'

/** What was to be played, as it is kept: from a place on an overlay by its name, or the home scale. */
export interface KeptPlan {
  readonly overlays: readonly {
    readonly bar: number
    readonly beat: number
    readonly overlay: string | null
    readonly wished?: number | null | undefined
  }[]
}

/** A take over a chart, in plain values. `bars` first and last of a loop, null for the whole form; `offset` in ms. */
export interface TakeValues {
  readonly notes: readonly PlayedNote[]
  readonly plan: KeptPlan | null
  readonly bars: readonly [number, number] | null
  readonly tempo: number
  readonly offset: number
}

/** The form a take is played over: the whole chart or some of its bars; null where the chart has no such bars. */
export const formOf = ({ chart, timeline }: Tune, bars: TakeValues['bars']): Span | null =>
  bars === null ? { from: 0, to: timeline.length } : spanOfBars(chart, bars[0], bars[1])

/** A plan from what lies over each chord, kept where it changes; null where nothing lies over any. */
export const planOver = (steps: KeptPlan['overlays']): KeptPlan | null => {
  if (steps.every((s) => s.overlay === null)) return null
  const changes = steps.filter(
    (s, i) => i === 0 || s.overlay !== steps[i - 1]?.overlay || s.wished !== steps[i - 1]?.wished,
  )
  return { overlays: changes }
}

/** Where a moment of a take stands in its chart: in as many choruses of it as its form came round. */
export const inChart = ({ timeline }: Tune, { from, to }: Span): ((at: number) => number) => {
  const size = to - from
  return (at) => Math.floor(at / size) * timeline.length + from + (((at % size) + size) % size)
}

/** What of a plan or of the bars is not in the chart. */
export interface NotInChart {
  readonly path: string
  readonly bar: number
  readonly first: number
  readonly last: number
}

const notIn = (chart: Chart, path: string, bar: number) =>
  fail<NotInChart>({ path, bar, first: chart.bars[0]?.number ?? 1, last: chart.bars.at(-1)?.number ?? 1 })

/** A kept plan in ticks; overlays that do not read are home. */
export const planIn = (chart: Chart, plan: KeptPlan | null): Result<readonly PlannedFrom[], NotInChart> => {
  const bars = new Map(barsAt(chart).map((b) => [b.number, b]))
  const laid: PlannedFrom[] = []
  for (const [i, { bar, beat, overlay, wished }] of (plan?.overlays ?? []).entries()) {
    const begins = bars.get(bar)
    if (!begins) return notIn(chart, `plan.overlays.${i}.bar`, bar)
    const read = overlay === null ? null : readOverlay(overlay)
    const from = Math.round(momentOf(begins, beat))
    laid.push({ from, overlay: read?.ok ? read.value : null, wished: wished ?? null })
  }
  return ok(laid.sort((a, b) => a.from - b.from))
}

/** Reads a kept take over its chart. What came late by the instrument's delay is taken off first. Pure. */
export const readTakeOver = (
  tune: Tune,
  { notes, plan, bars, tempo, offset }: TakeValues,
  { school, weights }: { readonly school: School; readonly weights: Weights },
): Result<TakeReading, NotInChart> => {
  const form = formOf(tune, bars)
  const missing = (bars ?? []).find((n) => !tune.chart.bars.some((b) => b.number === n))
  if (!form || missing !== undefined) return notIn(tune.chart, 'bars', missing ?? 0)
  const laid = planIn(tune.chart, plan)
  if (!laid.ok) return laid
  const timeline = bars === null ? tune.timeline : loopedTimeline(tune.timeline, form)
  const late = offset / msPerTick(timeline, tempo)
  const inTime = late === 0 ? notes : notes.map((n) => ({ ...n, at: n.at - late }))
  const own = bars === null ? laid.value : loopedFrom(laid.value, form)
  return ok(readTake({ notes: inTime, plan: own, tempo, school, weights }, timeline))
}
