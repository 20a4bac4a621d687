/** The same numbers for the same seed. */
export const drawnFrom = (seed: number): (() => number) => {
  let state = (seed ^ 0x9e37_79b9) >>> 0
  return () => {
    state = (state + 0x6d2b_79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32
  }
}
