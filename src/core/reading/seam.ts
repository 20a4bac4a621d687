import type { Overlay } from '../material/overlay.ts'
import { membersOf, shared, sizeOf } from '../pitch/pcset.ts'
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

const NOTES = 12
/** What it costs to go from one pitch class to another, at `from * 12 + to`: nothing to stay, else more than nothing. */
type Prices = Int32Array
const pricesBy = (price: (from: number, to: number) => number): Prices =>
  Int32Array.from({ length: NOTES * NOTES }, (_, i) => price(Math.floor(i / NOTES), i % NOTES))

/** The notes that one set has and the other has not, with what the cheapest way to any note of the other costs each. */
interface Moving {
  readonly pc: Int32Array
  readonly least: Int32Array
}
const moving = (): Moving => ({ pc: new Int32Array(NOTES), least: new Int32Array(NOTES) })
/** Kept between calls: routes ask for tens of thousands of pairings. */
const [leaving, coming] = [moving(), moving()]

/** Fills in the moving notes of one set; `ways` says where a price stands. Gives how many they are. */
const findMoving = (
  { pc, least }: Moving,
  own: number,
  other: number,
  prices: Prices,
  ways: readonly [own: number, other: number],
): number => {
  let count = 0
  for (let x = 0; x < NOTES; x++) {
    if (!((own >> x) & 1) || (other >> x) & 1) continue
    let best = Number.MAX_SAFE_INTEGER
    for (let y = 0; y < NOTES; y++)
      if ((other >> y) & 1) best = Math.min(best, prices[x * ways[0] + y * ways[1]] as number)
    pc[count] = x
    least[count++] = best
  }
  return count
}

/** What is saved at most where notes that leave, from one on, are paired with notes that come and are not taken yet. */
const mostSaved = (from: number, leaves: number, comes: number, taken: number, prices: Prices): number => {
  if (from === leaves) return 0
  let most = mostSaved(from + 1, leaves, comes, taken, prices)
  const [x, alone] = [(leaving.pc[from] as number) * NOTES, leaving.least[from] as number]
  for (let j = 0; j < comes; j++) {
    if ((taken >> j) & 1) continue
    const saved = alone + (coming.least[j] as number) - (prices[x + (coming.pc[j] as number)] as number)
    if (saved > 0) most = Math.max(most, saved + mostSaved(from + 1, leaves, comes, taken | (1 << j), prices))
  }
  return most
}

/**
 * The cheapest pairing of two sets on the circle in which each note takes part at least once (Tymoczko 2006). What both
 * hold stays; each other note goes the cheapest way there is, less what two of them save by going to each other.
 */
const cheapestPairing = (a: PcSet, b: PcSet, prices: Prices): number => {
  const leaves = findMoving(leaving, a, b, prices, [NOTES, 1])
  const comes = findMoving(coming, b, a, prices, [1, NOTES])
  let all = 0
  for (let i = 0; i < leaves; i++) all += leaving.least[i] as number
  for (let j = 0; j < comes; j++) all += coming.least[j] as number
  return all - mostSaved(0, leaves, comes, 0, prices)
}

const APART = pricesBy(apart)

/** How far a set moves to become another: 0 for the same set. */
export const motionBetween = (a: PcSet, b: PcSet): number =>
  cheapestPairing(a, b, APART) / Math.max(sizeOf(a), sizeOf(b))

/** Cost first: a semitone more is never outweighed by which way it goes. */
const COST = 1000
const RISING = pricesBy((x, y) => COST * apart(x, y) + step(x, y))
const FALLING = pricesBy((x, y) => COST * apart(x, y) - step(x, y))

/**
 * Which way a set goes as it becomes another: 1 where every cheapest pairing rises on the whole, -1 where each falls, 0
 * where neither is so.
 */
export const directionBetween = (a: PcSet, b: PcSet): 1 | 0 | -1 => {
  const least = cheapestPairing(a, b, RISING)
  const most = cheapestPairing(a, b, FALLING)
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
