import { type Audit, auditLine } from '../line/audit.ts'
import type { Line } from '../line/line.ts'
import type { OutsideStretch } from '../line/outside.ts'
import { quantised } from '../line/quantise.ts'
import { restingSuspensions } from '../line/verdict.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import type { Timeline } from '../time/timeline.ts'
import { type OneDevice, oneDeviceIn } from './device.ts'
import { type InTime, inTime, type Silence, silencesIn, tooLongOut, unanswered } from './found.ts'
import { type Kept, keptPlan } from './keeping.ts'
import { type PlannedFrom, type PlanStep, plannedSteps } from './plan.ts'
import { msPerTick, oneVoice, type PlayedNote, TOGETHER_MS } from './played.ts'
import { takeSentences } from './sentences.ts'
import type { TakeSentence } from './take-words.ts'
import { type Timing, timingOf } from './timing.ts'

/** What a take is read against: what was planned, and what the player's ears and school say. `tempo` in beats a minute. */
export interface TakeAsk {
  readonly notes: readonly PlayedNote[]
  readonly plan: readonly PlannedFrom[]
  readonly tempo: number
  readonly school: School
  readonly weights: Weights
}

/** All that was found in a take, before it is said. Places in `line` count from 0. */
export interface TakeFindings {
  readonly line: Line
  readonly audit: Audit
  readonly timing: Timing
  readonly time: InTime
  readonly steps: readonly PlanStep[]
  readonly kept: readonly Kept[]
  readonly silences: readonly Silence[]
  readonly resting: readonly number[]
  readonly device: OneDevice | null
  readonly unanswered: readonly OutsideStretch[]
  readonly tooLong: readonly OutsideStretch[]
}

/** A take read: its findings and at most five sentences, the most useful first, one of them good. */
export interface TakeReading extends TakeFindings {
  readonly sentences: readonly TakeSentence[]
}

/** Reads a take over its chart: grid beside raw time, audit, plan, timing, sentences. Pure. Source: practice page. */
export const readTake = ({ notes, plan, tempo, school, weights }: TakeAsk, timeline: Timeline): TakeReading => {
  const voice = oneVoice(notes, TOGETHER_MS / msPerTick(timeline, tempo))
  const timing = timingOf(voice)
  const line = quantised(
    voice.map((n, i) => ({ at: timing.notes[i]?.written ?? 0, for: n.for, pitch: n.pitch })),
    'nearest',
  )
  const audit = auditLine(line, timeline, weights)
  const steps = plannedSteps(plan, audit.notes, timeline, weights)
  const kept = keptPlan(steps, audit.notes, audit.stretches, school, timeline)
  const device = oneDeviceIn(audit.notes, steps)
  const findings: TakeFindings = {
    ...{ line, audit, timing, steps, kept, device },
    time: inTime(timing, timeline, tempo),
    silences: silencesIn(audit.notes, steps, timeline),
    resting: restingSuspensions(audit, school),
    // Where one device is laid over everything, what it leaves open comes from that.
    unanswered: device ? [] : unanswered(audit.stretches, kept, steps, audit.notes),
    tooLong: steps.length === 0 ? tooLongOut(audit.stretches, audit.notes, timeline) : [],
  }
  return { ...findings, sentences: takeSentences(findings) }
}
