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

/** A figure of two sets that is the same in every key, worked out once for each pair of shapes. */
const remembered = (work: (a: PcSet, b: PcSet) => number) => {
  const known = new Int8Array(SHAPES * SHAPES * 12).fill(UNKNOWN)
  const rows: Int8Array[] = []
  const of = (a: PcSet, b: PcSet): number => {
    const at = placeOf(a, b)
    if (known[at] === UNKNOWN) known[at] = work(a, b)
    return known[at] as number
  }
  /** For one set, the figures from every other, as far as they were asked for. */
  const rowTo = (to: PcSet): Int8Array => {
    rows[to] ??= new Int8Array(4096).fill(UNKNOWN)
    return rows[to]
  }
  return { of, rowTo }
}

const motions = remembered((a, b) => Math.round(ROUTE_COSTS.motion * motionBetween(a, b)))
const directions = remembered(directionBetween)

/** The motion of a seam in points, 0..60: rounded once, here. */
export const motionPoints = motions.of

/** `directionBetween`, remembered. */
export const directionOf = directions.of

/** Fills in the figures of one row that were not asked for yet, and gives the row. */
const filled = ({ of, rowTo }: typeof motions, to: PcSet, from: Uint16Array): Int8Array => {
  const row = rowTo(to)
  for (let p = 0; p < from.length; p++) {
    const set = from[p] as PcSet
    if (row[set] === UNKNOWN) row[set] = of(set, to)
  }
  return row
}

/** `motionPoints` from each of many sets to one: the innermost loop of a planning. */
export const motionsTo = (to: PcSet, from: Uint16Array, points: Int16Array): void => {
  const row = filled(motions, to, from)
  for (let p = 0; p < from.length; p++) points[p] = row[from[p] as number] as number
}

/** The same, and which way each goes. */
export const motionsAndDirectionsTo = (to: PcSet, from: Uint16Array, points: Int16Array): Int8Array => {
  motionsTo(to, from, points)
  return filled(directions, to, from)
}

/** How many notes move from one set to another: those of the larger that the other has not. */
export const movingNotes = (a: PcSet, b: PcSet): number => Math.max(sizeOf(a), sizeOf(b)) - sizeOf(shared(a, b))

/** Whether all but one note stay, in sets of one size. */
export const changesOneNote = (a: PcSet, b: PcSet): boolean => sizeOf(a) === sizeOf(b) && movingNotes(a, b) === 1
