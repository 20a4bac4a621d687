import type { Line } from '../line/line.ts'
import { midi } from '../pitch/units.ts'

/** Orders of the twelve keys: semitones from the first, key after key. */
export const KEY_ORDERS = {
  'half steps': [1],
  fourths: [5],
  'whole steps': [2, 2, 2, 2, 2, 3],
  'minor thirds': [3, 3, 3, 4],
} as const
export const KEY_ORDER_NAMES = ['half steps', 'fourths', 'whole steps', 'minor thirds', 'random'] as const
export type KeyOrder = (typeof KEY_ORDER_NAMES)[number]

const shuffled = (rng: () => number): readonly number[] => {
  const rest = Array.from({ length: 11 }, (_, i) => i + 1)
  const all = [0]
  while (rest.length > 0) all.push(...rest.splice(Math.floor(rng() * rest.length), 1))
  return all
}

/** The twelve keys in an order, as semitones above the first. `rng` is only asked for a random order. */
export const keysInOrder = (order: KeyOrder, rng: () => number): readonly number[] => {
  if (order === 'random') return shuffled(rng)
  const steps: readonly number[] = KEY_ORDERS[order]
  const all = [0]
  for (let i = 0; all.length < 12; i++) all.push(((all.at(-1) ?? 0) + (steps[i % steps.length] ?? 1)) % 12)
  return all
}

/** A line in another key, in the octave that lies best within a range. */
export const inKey = (line: Line, semitones: number, [low, high]: readonly [number, number]): Line => {
  const pitches = line.map((n) => n.pitch as number)
  const [least, most] = [Math.min(...pitches), Math.max(...pitches)]
  const past = (by: number): number => Math.max(0, low - least - by) + Math.max(0, most + by - high)
  const by = [semitones, semitones - 12, semitones + 12, semitones - 24].reduce((a, b) => (past(b) < past(a) ? b : a))
  return line.map((n) => ({ at: n.at, for: n.for, pitch: midi(n.pitch + by) }))
}
