import { barTicks, beatTicks } from '../chart/chart.ts'
import type { Feel } from '../chart/feel.ts'
import { barRound, type Timeline } from '../time/timeline.ts'
import { GROOVES } from './groove.ts'

/** How far notes are drawn out of the even grid. */
export interface Swing {
  readonly swung: 'eighths' | 'sixteenths' | null
  /** Where the second of a pair falls, per cent of the pair: 50 even, 67 a triplet, 75 dotted. */
  readonly amount: number
}

export const SWING_RANGE = { least: 50, most: 75 } as const
const FAST = 240
const EVEN = 50

/** A feel's own swing, a little more even where it is fast: above 240 beats a minute half of it is left. */
export const swingOf = (feel: Feel, tempo: number, asked: number | null): Swing => {
  const { swung, swing } = GROOVES[feel]
  const eased = EVEN + (swing - EVEN) * Math.min(1, Math.max(0.5, 1.5 - tempo / FAST))
  return { swung, amount: swung === null ? EVEN : (asked ?? Math.round(eased)) }
}

/**
 * When a written moment is played, in ticks. Only moments of the grid of sixteenths move; triplets are played as they
 * stand. Order is kept.
 */
export const swungAt = (at: number, beat: number, { swung, amount }: Swing): number => {
  const grid = beat / 4
  if (swung === null || Math.abs(at / grid - Math.round(at / grid)) > 1e-6) return at
  const pair = swung === 'eighths' ? beat : beat / 2
  const start = Math.floor(at / pair + 1e-9) * pair
  const part = (at - start) / pair
  const late = amount / 100
  return start + pair * (part < 0.5 ? part * 2 * late : late + (part - 0.5) * 2 * (1 - late))
}

interface Timed {
  readonly at: number
  readonly for: number
}

/** Where the beats lie at a moment: how long they are, and one of them. */
export type BeatsAt = (at: number) => { readonly from: number; readonly beat: number }

/** The beats of a chart, counted anew in each bar; those of a bar that is a pickup back from its end. */
export const beatsOfBars = (timeline: Timeline): BeatsAt => {
  let bar = barRound(timeline, 0)
  return (at) => {
    if (!bar || at < bar.from || at >= bar.to) bar = barRound(timeline, at)
    return bar ? { from: bar.to - barTicks(bar.metre), beat: beatTicks(bar.metre) } : { from: 0, beat: timeline.beat }
  }
}

/** Notes as they are played: beginnings and ends swung, none shorter than nothing. */
export const swungNotes = <N extends Timed>(notes: readonly N[], beatsAt: BeatsAt, swing: Swing): readonly N[] => {
  const swung = (at: number): number => {
    const { from, beat } = beatsAt(at)
    return from + swungAt(at - from, beat, swing)
  }
  return notes.map((n) => {
    const at = swung(n.at)
    return { ...n, at, for: Math.max(1, swung(n.at + n.for) - at) }
  })
}
