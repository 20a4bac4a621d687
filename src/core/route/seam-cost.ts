import { rotate, shared, sizeOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { directionBetween, motionBetween } from '../reading/seam.ts'
import { ROUTE_COSTS } from './costs.ts'

/**
 * Sets up to transposition: 351 shapes. What lies between two sets depends on their shapes and on how far apart they are
 * turned, so that a planning looks most seams up.
 */
const SHAPES = 352
const shapeOf = new Uint16Array(4096)
const turnOf = new Uint8Array(4096)
{
  let shapes = 0
  const seen = new Uint8Array(4096)
  for (let set = 1; set < 4096; set++) {
    if (seen[set]) continue
    for (let n = 11; n >= 0; n--) {
      const turned = rotate(set as PcSet, n)
      seen[turned] = 1
      shapeOf[turned] = shapes
      turnOf[turned] = n
    }
    shapes++
  }
}

const UNKNOWN = 100

const placeOf = (a: PcSet, b: PcSet): number =>
  ((shapeOf[a] as number) * SHAPES + (shapeOf[b] as number)) * 12 +
  (((turnOf[b] as number) - (turnOf[a] as number) + 12) % 12)

/** A figure of two sets that is the same in every key, worked out once for each pair of shapes; `back` makes it that of the way back. */
const remembered = (work: (a: PcSet, b: PcSet) => number, back: (there: number) => number) => {
  const known = new Int8Array(SHAPES * SHAPES * 12).fill(UNKNOWN)
  const rows: Int8Array[] = []
  /** For whose sets each row was filled in already. */
  const filled: WeakSet<Uint16Array>[] = []
  const of = (a: PcSet, b: PcSet): number => {
    const at = placeOf(a, b)
    if (known[at] === UNKNOWN) {
      known[at] = work(a, b)
      known[placeOf(b, a)] = back(known[at] as number)
    }
    return known[at] as number
  }
  /** For one set, the figure from every other, by set: known for those asked for. */
  const rowTo = (to: PcSet, from: Uint16Array): Int8Array => {
    rows[to] ??= new Int8Array(4096).fill(UNKNOWN)
    filled[to] ??= new WeakSet()
    const row = rows[to]
    if (filled[to].has(from)) return row
    for (const set of from) if (row[set] === UNKNOWN) row[set] = of(set as PcSet, to)
    filled[to].add(from)
    return row
  }
  return { of, rowTo }
}

const motions = remembered(
  (a, b) => Math.round(ROUTE_COSTS.motion * motionBetween(a, b)),
  (points) => points,
)
const directions = remembered(directionBetween, (way) => -way)

/** The motion of a seam in points, 0..60: rounded once, here. */
export const motionPoints = motions.of

/** `directionBetween`, remembered. */
export const directionOf = directions.of

/** `motionPoints` to one set from each of many, by set: the innermost loop of a planning looks there. */
export const motionsTo = motions.rowTo
/** `directionOf`, likewise. */
export const directionsTo = directions.rowTo

/** How many notes move from one set to another: those of the larger that the other has not. */
export const movingNotes = (a: PcSet, b: PcSet): number => Math.max(sizeOf(a), sizeOf(b)) - sizeOf(shared(a, b))

/** Whether all but one note stay, in sets of one size. */
export const changesOneNote = (a: PcSet, b: PcSet): boolean => sizeOf(a) === sizeOf(b) && movingNotes(a, b) === 1
