import { shared, sizeOf } from '../pitch/pcset.ts'
import { EMPTY_SET, type PcSet } from '../pitch/units.ts'
import { BITS } from './bits.ts'
import { type Ground, relationAt } from './cell-ground.ts'
import { ARPEGGIOS_HOLDING, FOREIGN, HOLDING, type Shape } from './shapes.ts'

/** A cell is at most so many notes long. */
export const LONGEST = 32

const need = (size: number): number => (size >= 5 ? 4 : 3)
/** So many of its tones a new chord must share with a cell that goes on over it. */
const SHARED_TONES = 3
/** Log2 of the sizes there are: what a note of a shape costs that is no neighbour. */
const LOG2 = Array.from({ length: 13 }, (_, n) => (n === 0 ? 0 : Math.log2(n)))

/** What a foreign note costs within a shape: less where it leads into the next note, or with others to one further on. */
const leadingBits = (shape: Shape, g: Ground, at: number, side: number): number => {
  const target = g.leads[at] as number
  const { order, size } = shape
  if (target >= 0 && (order[g.pc[target] as number] as number) >= 0) return BITS.approach.figure
  const next = at + 1
  if (next >= g.pc.length || (order[g.pc[next] as number] as number) < 0) return BITS.foreign
  const far = (g.pitch[next] as number) - (g.pitch[at] as number)
  const arpeggio = size <= 4
  if (arpeggio && far === side && (far === 1 || far === -1)) return BITS.approach.again
  const more = arpeggio ? (side === 0 ? BITS.approach.intoArpeggio : 0) : g.strong[at] ? BITS.approach.strong : 0
  if (far === 1 || far === -1) return BITS.approach.half + more
  return far === 2 || far === -2 ? BITS.approach.whole + more : BITS.foreign
}

/** Whether two notes of a shape are neighbours in its order, and near: `far` semitones apart. */
const isNeighbour = ({ size }: Shape, place: number, other: number, far: number): boolean => {
  const steps = place > other ? place - other : other - place
  return (steps === 1 || steps === size - 1) && far < 8 && far > -8
}

const goesOnOver = (set: PcSet, own: PcSet): boolean => own === EMPTY_SET || sizeOf(shared(own, set)) >= SHARED_TONES

/** The notes at which a walk can end, with what it costs to there: filled anew by each walk. */
export interface Walk {
  readonly to: Int32Array
  readonly cost: Float64Array
}
/** How far a walk may go: to the place `end` at most, not over what is parted, and at a cost below the limit of each place. */
export interface Bounds {
  readonly limits: Float64Array
  readonly parted: Uint8Array
  readonly end: number
}
export const emptyWalk = (): Walk => ({ to: new Int32Array(LONGEST), cost: new Float64Array(LONGEST) })

/**
 * What it costs to go through notes within one shape, up to some place: how many ends were written into `walk`. A cell that
 * ends at a place must not exceed its limit by more than its header. A chord change ends a cell unless the new chord holds
 * three notes of it; a rare shape is dear unless its own note falls on a beat or comes again.
 */
export const walkShape = (
  shape: Shape,
  g: Ground,
  from: number,
  header: number,
  { limits, parted, end: last }: Bounds,
  walk: Walk,
): number => {
  let ends = 0
  const end = Math.min(last, from + LONGEST)
  const enough = need(shape.size)
  const { pc, pitch, changes } = g
  const { order } = shape
  const all = LOG2[shape.size] as number
  let cost = header
  let [seen, different, foreign, side] = [0, 0, 0, 0]
  let [member, memberAt] = [-1, -1]
  let proven = !shape.rare
  for (let j = from; j < end; j++) {
    if (j > from) {
      if (parted[j]) return ends
      if (changes[j]) {
        if (!goesOnOver(shape.set, g.own[j] as PcSet)) return ends
        const told = g.tells[j] && FOREIGN.has(relationAt(g, j, shape.set))
        cost += told ? BITS.chordChangeTold : BITS.chordChange
      }
    }
    const at = order[pc[j] as number] as number
    if (at >= 0) {
      const far = member < 0 ? 0 : (pitch[j] as number) - (pitch[member] as number)
      if (member >= 0 && far === 0) cost += BITS.repeat
      else cost += member >= 0 && isNeighbour(shape, at, memberAt, far) ? BITS.neighbour : all
      const before = (seen >> at) & 1
      if (!before) different++
      if (!proven && !g.inHome[j] && (g.onBeat[j] || before)) proven = true
      seen |= 1 << at
      member = j
      memberAt = at
    } else {
      const bits = leadingBits(shape, g, j, side)
      cost += bits
      // A foreign note ends no cell.
      if (bits === BITS.foreign && ++foreign > 1) return ends
      side = j + 1 < pitch.length ? (pitch[j + 1] as number) - (pitch[j] as number) : 0
    }
    // No explanation may cost more than notes by themselves.
    if (cost > header + BITS.outside.else * (j - from + 1)) return ends
    if (cost > (limits[j + 1] as number) + shape.header) return ends
    if (at >= 0 && different >= enough) {
      walk.to[ends] = j
      walk.cost[ends++] = proven ? cost : cost + BITS.unproven
    }
  }
  return ends
}

/** The arpeggios a note leads into: by a figure, or by a half step into the one after it. */
const enteredFrom = (g: Ground, i: number): readonly Shape[] => {
  const target = g.leads[i] as number
  const next = i + 1
  const steps = next < g.pc.length && Math.abs((g.pitch[next] as number) - (g.pitch[i] as number)) === 1
  const led = target >= 0 ? target : steps ? next : -1
  return led < 0 ? [] : (ARPEGGIOS_HOLDING[g.pc[led] as number] ?? [])
}

/** Every shape a cell may begin in at a note: those that hold it, and arpeggios it leads into. */
export const shapesFrom = (g: Ground, i: number): readonly Shape[] => {
  const pc = g.pc[i] as number
  const entered = enteredFrom(g, i).filter((shape) => (shape.order[pc] as number) < 0)
  const holding = HOLDING[pc] ?? []
  return entered.length > 0 ? [...holding, ...entered] : holding
}
