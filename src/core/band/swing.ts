import type { Feel } from '../chart/feel.ts'
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

/** Notes as they are played: beginnings and ends swung, none shorter than nothing. */
export const swungNotes = <N extends Timed>(notes: readonly N[], beat: number, swing: Swing): readonly N[] =>
  notes.map((n) => {
    const at = swungAt(n.at, beat, swing)
    return { ...n, at, for: Math.max(1, swungAt(n.at + n.for, beat, swing) - at) }
  })
