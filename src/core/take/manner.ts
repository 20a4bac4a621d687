import { type BeatsAt, beatsOfBars, swungNotes } from '../band/swing.ts'
import type { Line } from '../line/line.ts'
import { TICKS_PER_QUARTER } from '../pitch/units.ts'
import type { Timeline } from '../time/timeline.ts'
import { msPerTick, type PlayedNote } from './played.ts'

/** How the simulated player plays what is written. */
export interface PlayersManner {
  /** Standard deviation of each onset from the beat, ms. */
  readonly looseness: number
  /** How far ahead of the beat all of it is, ms; below 0 behind. */
  readonly ahead: number
  /** Where the second of two eighths falls, per cent of the pair. */
  readonly swing: number
  /** Share of notes that are missed by a half step, 0..1. */
  readonly wrong: number
}
export const TIDY: PlayersManner = { looseness: 8, ahead: 0, swing: 50, wrong: 0 }

/** A number about 0 with a standard deviation of 1, nowhere beyond 3. */
const about = (rng: () => number): number => {
  const drawn = Math.sqrt(-2 * Math.log(1 - rng())) * Math.cos(2 * Math.PI * rng())
  return Math.max(-3, Math.min(3, drawn))
}

/** A line as the simulated player plays it: no note on the grid. The same for the same seed. */
export const playedLine = (
  line: Line,
  { looseness, ahead, swing, wrong }: PlayersManner,
  tempo: number,
  timeline: Timeline,
  rng: () => number,
): readonly PlayedNote[] => {
  const ticks = 1 / msPerTick(timeline, tempo)
  const bars = beatsOfBars(timeline)
  const quarters: BeatsAt = (at) => ({ from: bars(at).from, beat: TICKS_PER_QUARTER })
  const swung = swungNotes(line, quarters, { swung: swing === 50 ? null : 'eighths', amount: swing })
  return swung.map((n) => {
    const off = (about(rng) * looseness - ahead) * ticks
    const pitch = rng() < wrong ? n.pitch + (rng() < 0.5 ? 1 : -1) : n.pitch
    const length = Math.max(30, n.for * (0.9 + 0.06 * rng()))
    return { at: Math.round(n.at + off), for: Math.round(length), pitch, velocity: 0.6 + 0.2 * rng() }
  })
}
