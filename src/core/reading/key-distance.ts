import { periodOf, rotate, shared, sizeOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'

const MAJOR_SCALE = 0b101010110101 as PcSet

/** Distance from the overlay's nearest major key to the home scale's, 0..6 fifths; `nearest` where no key holds it all. */
export interface KeyDistance {
  readonly steps: number
  readonly nearest: boolean
}

/** The major keys that hold the set, or, where none does, those that hold most of it. */
const keysFor = (set: PcSet): { keys: readonly number[]; whole: boolean } => {
  const held = Array.from({ length: 12 }, (_, key) => sizeOf(shared(rotate(MAJOR_SCALE, key), set)))
  const most = Math.max(...held)
  return { keys: held.flatMap((n, key) => (n === most ? [key] : [])), whole: most === sizeOf(set) }
}

const fifthsApart = (a: number, b: number): number => {
  const steps = ((((a - b) * 7) % 12) + 12) % 12
  return Math.min(steps, 12 - steps)
}

/**
 * Steps on the circle of fifths between the home scale's key and the overlay's; a home scale outside the major keys
 * counts as the nearest of those that hold most of it. Null for symmetric sets, which have no key.
 */
export const keyDistance = (home: PcSet, overlay: PcSet): KeyDistance | null => {
  if (periodOf(home) < 12 || periodOf(overlay) < 12) return null
  const from = keysFor(home)
  const to = keysFor(overlay)
  const steps = Math.min(...from.keys.flatMap((a) => to.keys.map((b) => fifthsApart(a, b))))
  return { steps, nearest: !to.whole }
}
