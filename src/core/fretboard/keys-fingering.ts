import { pitchClass } from '../pitch/units.ts'

export type Hand = 'right' | 'left'
/** 1 the thumb, 5 the little finger. */
export type Finger = 1 | 2 | 3 | 4 | 5
const FINGERS: readonly Finger[] = [1, 2, 3, 4, 5]

/** Semitones that lie well under two fingers, for each finger between them. */
const PER_FINGER = 2
const REACH = 4
const COSTS = {
  sameFinger: 8,
  thumbOnBlack: 3,
  passing: 1,
  crossing: 20,
  stretch: 1,
  passOntoBlack: 2,
  passFromFifth: 4,
  passFromFourth: 0.3,
} as const

const isBlack = (pitch: number): boolean => [1, 3, 6, 8, 10].includes(pitchClass(pitch))

/** What a finger costs on a key by itself: the thumb on a black one. */
export const keyCost = (pitch: number, finger: Finger): number =>
  finger === 1 && isBlack(pitch) ? COSTS.thumbOnBlack : 0

/** What it costs to go from one key and finger to the next; `by` semitones away from the thumb's side. */
export const moveCost = (a: number, f: Finger, b: number, g: Finger, hand: Hand): number => {
  const by = hand === 'right' ? b - a : a - b
  if (by === 0) return f === g ? 0 : 1
  if (f === g) return COSTS.sameFinger + Math.abs(by)
  const outward = g > f
  if (outward === by > 0) {
    const natural = Math.abs(g - f) * PER_FINGER
    const over = Math.max(0, Math.abs(by) - natural - REACH + PER_FINGER)
    return over * COSTS.stretch + Math.abs(Math.abs(by) - natural) * 0.25
  }
  // The thumb passes under, or a finger over the thumb: by a small step, and not onto a black key for the thumb.
  if (f !== 1 && g !== 1) return COSTS.crossing
  const far = Math.max(f, g)
  const passed = far === 5 ? COSTS.passFromFifth : far === 4 ? COSTS.passFromFourth : 0
  return (
    COSTS.passing + passed + Math.max(0, Math.abs(by) - REACH) * 2 + (g === 1 && isBlack(b) ? COSTS.passOntoBlack : 0)
  )
}

/** Fingers for a line on keys, by dynamic programming: the thumb under and over, and on no black key where it need not be. */
export const keysFingering = (pitches: readonly number[], hand: Hand): readonly Finger[] => {
  interface Way {
    readonly cost: number
    readonly finger: Finger
    readonly before: Way | null
  }
  let ways: readonly Way[] = []
  for (const [i, pitch] of pitches.entries()) {
    const last = pitches[i - 1]
    ways = FINGERS.map((finger): Way => {
      const own = keyCost(pitch, finger)
      if (last === undefined) return { cost: own, finger, before: null }
      const [first = { cost: 0, finger, before: null }, ...rest] = ways
      const by = (w: Way): number => w.cost + moveCost(last, w.finger, pitch, finger, hand)
      const before = rest.reduce((a, b) => (by(b) < by(a) ? b : a), first)
      return { cost: by(before) + own, finger, before }
    })
  }
  const fingers: Finger[] = []
  let at: Way | null = ways.reduce<Way | null>((a, b) => (a && a.cost <= b.cost ? a : b), null)
  for (; at; at = at.before) fingers.push(at.finger)
  return fingers.reverse()
}
