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

/** Semitones from one pitch class to another by the shorter way, up positive; 0 for a tritone, which goes either way. */
const step = (a: number, b: number): number => {
  const up = (b - a + 12) % 12
  return up < 6 ? up : up > 6 ? up - 12 : 0
}

type Price = (from: number, to: number) => number

/** Rows of the walk below, kept between calls: routes ask for tens of thousands of pairings. */
let [row, nextRow] = [new Float64Array(14), new Float64Array(14)]

/**
 * The cheapest pairing of two sets on the circle in which each note takes part at least once. Pairings that do not cross
 * suffice (Tymoczko 2006): for each way to turn the second set, walk both in order, moving on in one, the other or both.
 */
const cheapestPairing = (a: readonly number[], b: readonly number[], price: Price): number => {
  let best = Number.POSITIVE_INFINITY
  for (let turn = 0; turn < b.length; turn++) best = Math.min(best, pairedInOrder(a, b, turn, price))
  return best
}

/** Both walks start together and end together on their first notes again, whose pair is counted once. */
const pairedInOrder = (a: readonly number[], b: readonly number[], turn: number, price: Price): number => {
  const [n, m] = [a.length, b.length]
  row.fill(Infinity, 0, m + 1)
  for (let i = 0; i <= n; i++) {
    const x = a[i % n] as number
    for (let j = 0; j <= m; j++) {
      const y = b[(j + turn) % m] as number
      const before =
        i === 0 && j === 0
          ? 0
          : Math.min(
              row[j] as number,
              j > 0 ? (row[j - 1] as number) : Infinity,
              j > 0 ? (nextRow[j - 1] as number) : Infinity,
            )
      nextRow[j] = before + (i === n && j === m ? 0 : price(x, y))
    }
    ;[row, nextRow] = [nextRow, row]
  }
  return row[m] as number
}

/** How far a set moves to become another: 0 for the same set. */
export const motionBetween = (a: PcSet, b: PcSet): number => {
  const [from, to] = [membersOf(a), membersOf(b)]
  return cheapestPairing(from, to, apart) / Math.max(from.length, to.length)
}

/** Cost first: a semitone more is never outweighed by which way it goes. */
const COST = 1000

/**
 * Which way a set goes as it becomes another: 1 where every cheapest pairing rises on the whole, -1 where each falls, 0
 * where neither is so.
 */
export const directionBetween = (a: PcSet, b: PcSet): 1 | 0 | -1 => {
  const [from, to] = [membersOf(a), membersOf(b)]
  const least = cheapestPairing(from, to, (x, y) => COST * apart(x, y) + step(x, y))
  const most = cheapestPairing(from, to, (x, y) => COST * apart(x, y) - step(x, y))
  const cost = Math.round(least / COST) * COST
  const rises = least - cost
  const atMost = cost - most
  return rises > 0 ? 1 : atMost < 0 ? -1 : 0
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
