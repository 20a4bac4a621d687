import { timeOf } from './plan.ts'
import type { TakeFindings } from './read-take.ts'

/** A take in figures: ways home that the plan asked for, how many of them landed in time, and beats outside past them. */
export interface TakeFigures {
  readonly ways: number
  readonly landed: number
  readonly beatsOver: number
  /** How much of what was played lies in the plan, 0..1; null without one. */
  readonly kept: number | null
}

export const figuresOf = ({ kept, steps, audit: { timeline } }: TakeFindings): TakeFigures => {
  const ways = kept.filter((k) => 'late' in k || 'stretch' in k)
  const beatsOver = kept.reduce((sum, k) => sum + ('late' in k ? Math.max(0, k.late) / timeline.beat : 0), 0)
  const told = steps.flatMap((s) => (s.inPlan === null ? [] : [{ time: timeOf(s.notes), share: s.inPlan }]))
  const time = told.reduce((sum, t) => sum + t.time, 0)
  return {
    ways: ways.length,
    landed: ways.filter((k) => k.kind === 'landed').length,
    beatsOver: Math.round(beatsOver * 10) / 10,
    kept: time === 0 ? null : told.reduce((sum, t) => sum + t.share * t.time, 0) / time,
  }
}
