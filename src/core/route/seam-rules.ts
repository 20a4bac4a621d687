import { rotate } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { ROUTE_COSTS } from './costs.ts'
import type { Motion, RouteRules } from './rules.ts'
import { changesOneNote, directionOf, directionsTo, motionPoints, motionsTo, movingNotes } from './seam-cost.ts'
import { isHeld, isRuled, type Slot } from './slots.ts'

/** What may follow what from one slot to the next, and what it costs in points. */
export interface SeamRule {
  /** Points, or `FORBIDDEN`. */
  readonly cost: (from: PcSet, to: PcSet) => number
  /** The same to one set from each of many, by set: for those only, and until it is asked again. */
  readonly rowTo: (to: PcSet, from: Uint16Array) => Int8Array | Int16Array
  /** Where only these sets can come before one; null where any can. */
  readonly before: ((to: PcSet) => readonly PcSet[]) | null
}

export const FORBIDDEN = -1

/** Where rows are written that are not remembered. */
const written = new Int16Array(4096)

const ruled = (cost: SeamRule['cost'], before: SeamRule['before'] = null): SeamRule => ({
  cost,
  before,
  rowTo: (to, from) => {
    for (const set of from) written[set] = cost(set as PcSet, to)
    return written
  },
})

const FREE: SeamRule = { cost: motionPoints, rowTo: motionsTo, before: null }
const CARRIED: SeamRule = ruled(
  (a, b) => (a === b ? 0 : FORBIDDEN),
  (to) => [to],
)

/** Which way the roots move: a fifth counts as falling whichever way it is played, a tritone as either, else the shorter way. */
export const bassDirection = (from: Slot, to: Slot): 'up' | 'down' | 'either' | 'held' => {
  const up = pitchClass(to.chord.root.pc - from.chord.root.pc)
  if (up === 0) return 'held'
  if (up === 6) return 'either'
  return up < 5 ? 'up' : 'down'
}

const shapeRule = (by: number, mayStay: boolean): SeamRule => {
  const before = (to: PcSet): readonly PcSet[] => {
    const moved = rotate(to, -by)
    return mayStay && moved !== to ? [moved, to] : [moved]
  }
  return ruled((a, b) => (before(b).includes(a) ? motionPoints(a, b) : FORBIDDEN), before)
}

const against = (from: Slot, to: Slot): SeamRule => {
  const bass = bassDirection(from, to)
  if (bass === 'held') return FREE
  const fits = (way: number): boolean => (bass === 'either' ? way !== 0 : way === (bass === 'down' ? 1 : -1))
  return {
    before: null,
    cost: (a, b) => (fits(directionOf(a, b)) ? motionPoints(a, b) : FORBIDDEN),
    rowTo: (to, before) => {
      const [points, ways] = [motionsTo(to, before), directionsTo(to, before)]
      for (const set of before) written[set] = fits(ways[set] as number) ? (points[set] as number) : FORBIDDEN
      return written
    },
  }
}

const oneNote = (mayStay: boolean): SeamRule =>
  ruled((a, b) => (changesOneNote(a, b) || (mayStay && a === b) ? motionPoints(a, b) : FORBIDDEN))

const FEWEST: SeamRule = ruled((a, b) => ROUTE_COSTS.movingNote * movingNotes(a, b))

/**
 * The rule for one seam. Within a cadence a chord that is held may keep its overlay; throughout, every seam obeys. A
 * shape that moves by any constant is planned once for each, so `by` is known here. Source: theory page, section 8.
 */
export const seamRule = (from: Slot, to: Slot, motion: Motion, { scope }: Pick<RouteRules, 'scope'>): SeamRule => {
  if (to.carries) return CARRIED
  if (motion.kind === 'free' || !isRuled(from, to, scope)) return FREE
  const mayStay = scope === 'cadence' && isHeld(from, to)
  switch (motion.kind) {
    case 'fewest':
      return FEWEST
    case 'one-note':
      return oneNote(mayStay)
    case 'contrary':
      return against(from, to)
    case 'shape':
      if (motion.by === null) throw new Error('a shape is planned for one constant at a time')
      return shapeRule(motion.by, mayStay)
  }
}
