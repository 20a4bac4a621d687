import { rotate } from '../pitch/pcset.ts'
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
const motions = new Int8Array(SHAPES * SHAPES * 12).fill(UNKNOWN)
const directions = new Int8Array(SHAPES * SHAPES * 12).fill(UNKNOWN)

const placeOf = (a: PcSet, b: PcSet): number =>
  ((shapeOf[a] as number) * SHAPES + (shapeOf[b] as number)) * 12 +
  (((turnOf[b] as number) - (turnOf[a] as number) + 12) % 12)

/** The motion of a seam in points, 0..60: rounded once, here. The same both ways. */
export const motionPoints = (a: PcSet, b: PcSet): number => {
  const at = placeOf(a, b)
  const known = motions[at] as number
  if (known !== UNKNOWN) return known
  const points = Math.round(ROUTE_COSTS.motion * motionBetween(a, b))
  motions[at] = points
  motions[placeOf(b, a)] = points
  return points
}

/** `directionBetween`, remembered. */
export const directionOf = (a: PcSet, b: PcSet): number => {
  const at = placeOf(a, b)
  const known = directions[at] as number
  if (known !== UNKNOWN) return known
  const direction = directionBetween(a, b)
  directions[at] = direction
  return direction
}

/** `motionPoints` from each of many sets to one: the innermost loop of a planning. */
export const motionsTo = (to: PcSet, from: Uint16Array, points: Int16Array): void => {
  const [row, turn] = [(shapeOf[to] as number) * SHAPES, turnOf[to] as number]
  for (let p = 0; p < from.length; p++) {
    const set = from[p] as PcSet
    const by = (turnOf[set] as number) - turn
    const known = motions[(row + (shapeOf[set] as number)) * 12 + (by < 0 ? by + 12 : by)] as number
    points[p] = known === UNKNOWN ? motionPoints(to, set) : known
  }
}

const BITS = Uint8Array.from({ length: 4096 }, (_, set) => {
  let n = 0
  for (let rest = set; rest; rest &= rest - 1) n++
  return n
})

/** How many notes move from one set to another: those of the larger that the other has not. */
export const movingNotes = (a: PcSet, b: PcSet): number =>
  Math.max(BITS[a] as number, BITS[b] as number) - (BITS[a & b] as number)

/** Whether all but one note stay, in sets of one size. */
export const changesOneNote = (a: PcSet, b: PcSet): boolean => BITS[a] === BITS[b] && movingNotes(a, b) === 1
