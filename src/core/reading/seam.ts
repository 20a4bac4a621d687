import type { Overlay } from '../material/overlay.ts'
import { membersOf, shared } from '../pitch/pcset.ts'
import type { PcSet, PitchClass } from '../pitch/units.ts'

/** The join between two overlays on neighbouring spots. */
export interface Seam {
  readonly common: readonly PitchClass[]
  /** Every pair a half step apart: from the first, to the second. */
  readonly halfSteps: readonly (readonly [PitchClass, PitchClass])[]
  /** Semitones moved by the cheapest pairing in which every note takes part, divided by the size of the larger set. */
  readonly motion: number
}

const apart = (a: number, b: number): number => {
  const d = Math.abs(a - b)
  return Math.min(d, 12 - d)
}

/**
 * The cheapest pairing of two sets on the circle in which each note takes part at least once. Pairings that do not cross
 * suffice (Tymoczko 2006): for each way to turn the second set, walk both in order, moving on in one, the other or both.
 */
const cheapestPairing = (a: readonly number[], b: readonly number[]): number => {
  let best = Number.POSITIVE_INFINITY
  for (let turn = 0; turn < b.length; turn++) {
    const turned = b.map((_, i) => b[(i + turn) % b.length] ?? 0)
    best = Math.min(best, pairedInOrder(a, [...turned, turned[0] ?? 0]))
  }
  return best
}

/** Both walks start together and end together on their first notes again, whose pair is counted once. */
const pairedInOrder = (a: readonly number[], turned: readonly number[]): number => {
  const round = [...a, a[0] ?? 0]
  let row: number[] = []
  for (const [i, x] of round.entries()) {
    const next: number[] = []
    for (const [j, y] of turned.entries()) {
      const last = i === round.length - 1 && j === turned.length - 1
      const cost = last ? 0 : apart(x, y)
      const before = Math.min(row[j] ?? Infinity, row[j - 1] ?? Infinity, next[j - 1] ?? Infinity)
      next.push(cost + (i === 0 && j === 0 ? 0 : before))
    }
    row = next
  }
  return row.at(-1) ?? 0
}

/** How far a set moves to become another: 0 for the same set. */
export const motionBetween = (a: PcSet, b: PcSet): number => {
  const [from, to] = [membersOf(a), membersOf(b)]
  return cheapestPairing(from, to) / Math.max(from.length, to.length)
}

export const seamBetween = (a: Overlay, b: Overlay): Seam => ({
  common: membersOf(shared(a.set, b.set)),
  halfSteps: membersOf(a.set).flatMap((x) =>
    membersOf(b.set)
      .filter((y) => apart(x, y) === 1)
      .map((y) => [x, y] as const),
  ),
  motion: motionBetween(a.set, b.set),
})
