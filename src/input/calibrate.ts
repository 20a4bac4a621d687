/** Fewer taps tell nothing. */
const FEWEST = 5
/** Taps farther from a click than this share of the time between two belong to none. */
const NEAR = 0.5

const middle = (all: readonly number[]): number => {
  const sorted = [...all].sort((a, b) => a - b)
  const half = sorted.length >> 1
  const [low, high] = [sorted[half - 1] ?? 0, sorted[half] ?? 0]
  return sorted.length % 2 === 0 ? (low + high) / 2 : high
}

/** What tapping along tells: how late taps come, ms, and by how much they stray; null where too few came. */
export interface Calibrated {
  readonly delay: number
  readonly stray: number
}

/**
 * How late an instrument comes, from taps along clicks (ms of one clock). A delay of more than half the time between two
 * clicks is told by the taps all together, since the first click has no tap. Clicks that were missed and taps beside them
 * do no harm: it is the middle of all that counts.
 */
export const delayOf = (clicks: readonly number[], taps: readonly number[]): Calibrated | null => {
  const [first, second] = clicks
  if (first === undefined || second === undefined) return null
  const apart = second - first
  const near = taps.flatMap((tap) => {
    const by = clicks.map((c) => tap - c).sort((a, b) => Math.abs(a) - Math.abs(b))[0]
    return by !== undefined && Math.abs(by) <= NEAR * apart ? [by] : []
  })
  if (near.length < FEWEST) return null
  const delay = middle(near)
  return { delay, stray: middle(near.map((by) => Math.abs(by - delay))) }
}
