import {
  type Chart,
  type Interval,
  type KeptOverride,
  type KeptPlan,
  type PlayedNote,
  readOverlay,
  readTakeOver,
  readTune,
  type School,
  type TakeReading,
  type TakeValues,
  transposeOverlay,
  type Weights,
} from '../core/index.ts'

/** A take to be read, in plain values: chart, plan and notes in concert pitch, read as `written` has it. */
export interface TakeToRead extends TakeValues {
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly written: Interval
  readonly school: School
  readonly weights: Weights
}

/** A take read over its chart, both in written pitch. */
export interface TakeRead {
  readonly chart: Chart
  readonly reading: TakeReading
}

const writtenPlan = (plan: KeptPlan | null, by: Interval): KeptPlan | null =>
  plan && {
    overlays: plan.overlays.map((o) => {
      const read = o.overlay === null ? null : readOverlay(o.overlay)
      return read?.ok ? { ...o, overlay: transposeOverlay(read.value, by).name } : o
    }),
  }

/** Reads a take from the words of its chart; null where those do not read, or have no such bars. */
export const takeRead = ({ text, overrides, written, school, weights, ...take }: TakeToRead): TakeRead | null => {
  const tune = readTune(text, overrides, { written, school })
  if (!tune.ok) return null
  const notes = take.notes.map((n): PlayedNote => ({ ...n, pitch: n.pitch + written.semitones }))
  const read = readTakeOver(tune.value, { ...take, notes, plan: writtenPlan(take.plan, written) }, { school, weights })
  return read.ok ? { chart: tune.value.chart, reading: read.value } : null
}
