import { lastWhere } from '../grouped.ts'
import type { HeardNote } from '../line/heard.ts'
import { endOf } from '../line/line.ts'
import type { OutsideStretch } from '../line/outside.ts'
import type { Timeline } from '../time/timeline.ts'
import type { Kept } from './keeping.ts'
import type { PlanStep } from './plan.ts'
import { msPerTick } from './played.ts'
import { spreadOf, type Timing } from './timing.ts'

/** A time without notes. */
export interface Silence {
  readonly from: number
  readonly to: number
}

/** A rest of so many bars is named; a shorter one is breath. */
const SILENT_BARS = 2

/** Long rests between notes, and before and after them as far as the plan lays something there. */
export const silencesIn = (
  notes: readonly HeardNote[],
  steps: readonly PlanStep[],
  timeline: Timeline,
): readonly Silence[] => {
  const bar = timeline.beat * timeline.beatsInBar
  const [first, last] = [notes[0], notes.at(-1)]
  if (!first || !last) return []
  const begins = Math.min(first.at, steps[0]?.from ?? first.at)
  const lastLaid = steps[lastWhere(steps, (s) => s.overlay !== null)]
  const ends = Math.max(endOf(last), lastLaid && first.at >= 0 ? Math.min(lastLaid.to, lastLaid.from + bar) : 0)
  const edges = [begins, ...notes.flatMap((n) => [n.at, endOf(n)]), ends]
  const gaps = edges.flatMap((from, i): readonly Silence[] => {
    const to = edges[i + 1]
    return i % 2 === 0 && to !== undefined && to > from ? [{ from, to }] : []
  })
  const empty = (g: Silence): boolean =>
    steps.some(
      (s) => s.overlay !== null && s.to - s.from >= bar && s.from >= g.from - 1 && s.to <= g.to + timeline.beat / 2,
    )
  return gaps.filter((g) => g.to - g.from >= SILENT_BARS * bar - timeline.beat / 2 || empty(g))
}

/** Early by this many ms on average is rushing, late by so many dragging: a little behind is a way to play. */
export const TIME_LIMITS = { early: -25, late: 32, uneven: 28 } as const
const WINDOW_BARS = 4
const FEWEST = 8

/** Against the beat in ms. */
export interface InTime {
  readonly mean: number
  readonly spread: number
  readonly swing: number | null
  readonly fault: {
    readonly about: 'rushing' | 'dragging' | 'uneven'
    readonly ms: number
    readonly from: number
    readonly to: number
  } | null
}

/** What is left when a steady drift is taken out. */
const withoutDrift = (misses: readonly number[]): readonly number[] => {
  const middle = (misses.length - 1) / 2
  const mean = misses.reduce((a, b) => a + b, 0) / misses.length
  const [up, down] = misses.reduce(([u, d], y, i) => [u + (i - middle) * (y - mean), d + (i - middle) ** 2], [0, 0])
  const slope = down === 0 ? 0 : up / down
  return misses.map((y, i) => y - mean - slope * (i - middle))
}

export const inTime = (timing: Timing, timeline: Timeline, tempo: number): InTime => {
  const ms = msPerTick(timeline, tempo)
  const all = timing.notes.map((n) => ({ at: n.at, off: n.off * ms }))
  const whole = { mean: timing.mean * ms, spread: timing.spread * ms, swing: timing.swing }
  const [first, last] = [all[0], all.at(-1)]
  if (!first || !last || all.length < FEWEST) return { ...whole, fault: null }
  const everywhere = { from: first.at, to: last.at + 1 }
  const even = spreadOf(withoutDrift(all.map((n) => n.off)))
  if (even > TIME_LIMITS.uneven) return { ...whole, fault: { about: 'uneven', ms: even, ...everywhere } }
  if (whole.mean < TIME_LIMITS.early) return { ...whole, fault: { about: 'rushing', ms: whole.mean, ...everywhere } }
  if (whole.mean > TIME_LIMITS.late) return { ...whole, fault: { about: 'dragging', ms: whole.mean, ...everywhere } }
  const bar = timeline.beat * timeline.beatsInBar
  const size = WINDOW_BARS * bar
  let worst: InTime['fault'] = null
  for (let from = Math.floor(first.at / bar) * bar; from < last.at; from += bar) {
    const own = all.filter((n) => n.at >= from && n.at < from + size)
    if (own.length < 2 * FEWEST) continue
    const mean = own.reduce((sum, n) => sum + n.off, 0) / own.length
    const about = mean < TIME_LIMITS.early * MORE ? 'rushing' : mean > TIME_LIMITS.late * MORE ? 'dragging' : null
    if (about && Math.abs(mean) > Math.abs(worst?.ms ?? 0)) worst = { about, ms: mean, from, to: from + size }
  }
  return { ...whole, fault: worst }
}
/** A few bars must be this much farther off to be named by themselves. */
const MORE = 1.3

const awayUntil = (k: Kept): number => k.stay.to + ('late' in k ? Math.max(0, k.late) : 0)

/** Stretches away from home that the plan does not speak of, and that nothing answers. */
export const unanswered = (
  stretches: readonly OutsideStretch[],
  kept: readonly Kept[],
  steps: readonly PlanStep[],
  notes: readonly HeardNote[],
): readonly OutsideStretch[] => {
  // What was begun of another chorus before one stopped is judged by nothing.
  const ends = steps.at(-1)?.to ?? Number.POSITIVE_INFINITY
  return stretches.filter((s) => {
    const [from, to] = [(notes[s.from] as HeardNote).at, endOf(notes[s.to] as HeardNote)]
    const isPlanned = kept.some((k) => k.stay.isOut && k.stay.from < to && awayUntil(k) > from)
    return s.landing === null && from < ends && !isPlanned
  })
}

/** Without a plan, so many bars outside in one go are too long. */
const LONGEST_OUT_BARS = 4

export const tooLongOut = (
  stretches: readonly OutsideStretch[],
  notes: readonly HeardNote[],
  timeline: Timeline,
): readonly OutsideStretch[] =>
  stretches.filter(
    (s) =>
      endOf(notes[s.to] as HeardNote) - (notes[s.from] as HeardNote).at >
      LONGEST_OUT_BARS * timeline.beat * timeline.beatsInBar + timeline.beat / 2,
  )
