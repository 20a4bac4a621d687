import { groupedBy } from '../grouped.ts'
import { ticks } from '../pitch/units.ts'
import { beatTicks, type Chart, type Spot } from './chart.ts'
import { type Job, readJob } from './job.ts'

/** What the player says about one place; it wins. `bar` as played, `beat` from 1. */
export interface Override {
  readonly bar: number
  readonly beat: number
  readonly job?: Job | undefined
  readonly home?: string | undefined
  /** The beat at which the chord is cut in two. */
  readonly split?: number | undefined
}

/** The same as it is kept and sent: the job by its name. */
export interface KeptOverride extends Omit<Override, 'job'> {
  readonly job?: string | undefined
}

export const readOverrides = (kept: readonly KeptOverride[] | null): readonly Override[] =>
  (kept ?? []).map(({ job, ...o }) => ({ ...o, job: (job && readJob(job)) || undefined }))

/** Whether two beats of a bar are the same one, whatever their fractions were rounded to. */
export const sameBeat = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6

interface Placed {
  readonly bar: number
  readonly beat: number
}
const NONE: readonly never[] = []
const grouped = new WeakMap<readonly Placed[], ReadonlyMap<number, readonly Placed[]>>()

/** What was said about a bar; of a list that was asked before without going through it again. */
const inBar = <O extends Placed>(overrides: readonly O[], bar: number): readonly O[] => {
  if (overrides.length === 0) return NONE
  const known = grouped.get(overrides) ?? groupedBy(overrides, (o) => o.bar)
  grouped.set(overrides, known)
  return (known.get(bar) ?? NONE) as readonly O[]
}

/** What was said about a place, of overrides in either form. */
export const overrideAt = <O extends Placed>(overrides: readonly O[], bar: number, beat: number): O | undefined =>
  inBar(overrides, bar).find((o) => sameBeat(o.beat, beat))

/** The chart with the spots cut that the player cut: what was one chord is two spots of it. */
export const splitChart = (chart: Chart, overrides: readonly Override[]): Chart => {
  const cuts = overrides.filter((o) => o.split !== undefined)
  if (cuts.length === 0) return chart
  const cutSpot = (s: Spot): readonly Spot[] => {
    const beat = beatTicks(s.metre)
    const cut = inBar(cuts, s.bar).find((o) => Math.abs((o.beat - 1) * beat - s.at) < 1)
    const at = ticks(((cut?.split ?? 0) - 1) * beat)
    if (at <= s.at || at >= s.at + s.length) return [s]
    return [
      { ...s, length: ticks(at - s.at) },
      { ...s, at, length: ticks(s.at + s.length - at) },
    ]
  }
  return { ...chart, bars: chart.bars.map((b) => ({ ...b, spots: b.spots.flatMap(cutSpot) })) }
}
