import type { Measured } from './lens.ts'

/** The same places in order of a whole number not below zero, lowest first; equal ones as they stood. */
export const orderedBy = (places: Uint32Array, keyOf: (place: number) => number): Uint32Array => {
  const count = places.length
  // One number holds a key and where it stood: such numbers sort many times faster than by a comparison.
  const keys = new Float64Array(count)
  for (let i = 0; i < count; i++) keys[i] = keyOf(places[i] as number) * count + i
  keys.sort()
  const ordered = new Uint32Array(count)
  for (let i = 0; i < count; i++) ordered[i] = places[(keys[i] as number) % count] as number
  return ordered
}

/** Lower first: fade, then fewer rubs, fewer suspensions, and the better landing, as one number. */
export const fadeKey = ({ fade, rubs, suspensions, landing }: Measured): number =>
  ((fade * 16 + rubs) * 16 + suspensions) * 128 + 100 - (landing ?? 0)
