import type { Line } from '../line/line.ts'
import type { Overlay } from '../material/overlay.ts'
import type { Timeline } from '../time/timeline.ts'
import { makeLines } from './make.ts'
import type { MakeRequest } from './request.ts'

/** An overlay laid over a time, in ticks. */
export interface LaidSpan {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay
}

/** Spans that follow each other without a gap. */
const joined = (spans: readonly LaidSpan[]): readonly (readonly LaidSpan[])[] => {
  const all: LaidSpan[][] = []
  for (const span of spans) {
    if (all.at(-1)?.at(-1)?.to === span.from) all.at(-1)?.push(span)
    else all.push([span])
  }
  return all
}

/** The smoothest line through what is laid, as a band plays it; where nothing is laid it rests. */
export const lineThrough = (
  spans: readonly LaidSpan[],
  how: Omit<MakeRequest, 'plan' | 'from' | 'to' | 'landing' | 'limit'>,
  timeline: Timeline,
): Line =>
  joined(spans).flatMap((run) => {
    const [from, to] = [run[0]?.from ?? 0, run.at(-1)?.to ?? 0]
    const made = makeLines({ ...how, plan: run, from, to, landing: null, limit: 1 }, timeline)
    return made.ok ? (made.value[0]?.line ?? []) : []
  })
