import { MATERIALS } from '../material/material.ts'
import { type Overlay, pairOf, placeOn } from '../material/overlay.ts'
import { rotate, setOf, shared } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Timeline } from '../time/timeline.ts'
import { type HeardNote, isParted } from './heard.ts'

/** Triads in thirds: suspended ones by turns are rather a line of fourths; others are seldom heard in pairs. */
const TRIADS = MATERIALS.filter((m) => m.family === 'triad' && !/^sus|lydian|phrygian|major b5/.test(m.name))
export const GROUP = 3

/** The triad three notes in a row are, in any order. */
const triadAt = (notes: readonly HeardNote[], i: number, timeline: Timeline): Overlay | null => {
  const group = notes.slice(i, i + GROUP)
  if (group.length < GROUP || group.some((n, k) => k > 0 && isParted(group[k - 1] as HeardNote, n, timeline)))
    return null
  const set = setOf(group.map((n) => pitchClass(n.pitch)))
  for (const n of group) {
    const material = TRIADS.find((m) => rotate(m.set, n.pitch) === set)
    if (material) return placeOn(n.name, material)
  }
  return null
}

/** Where pairs are heard: two triads that share no note, three notes of one and three of the other by turns. */
export interface PairsHeard {
  /** The pair of the two groups that begin at each note; null where they are none. */
  readonly begins: readonly (Overlay | null)[]
  /** 1 where the three notes that begin there are the triad of the group before the last: a pair goes on. */
  readonly goesOn: Uint8Array
}

export const pairsHeard = (notes: readonly HeardNote[], timeline: Timeline): PairsHeard => {
  const triads = notes.map((_, i) => triadAt(notes, i, timeline))
  const again = (i: number): boolean => triads[i] !== null && triads[i]?.set === triads[i - 2 * GROUP]?.set
  return {
    begins: triads.map((a, i) => {
      const b = triads[i + GROUP]
      return a && b && shared(a.set, b.set) === 0 ? pairOf(a, b) : null
    }),
    goesOn: Uint8Array.from(triads, (_, i) => (again(i) ? 1 : 0)),
  }
}
