import { MATERIALS } from '../material/material.ts'
import { type Overlay, pairOf, placeOn } from '../material/overlay.ts'
import { rotate, setOf, shared } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { type HeardNote, isParted } from './heard.ts'
import type { Timeline } from './timeline.ts'

/** Two triads that share no note, three notes of one and three of the other by turns. */
export interface PairRun {
  readonly from: number
  readonly to: number
  readonly pair: Overlay
}

/** Triads in thirds: suspended ones by turns are rather a line of fourths; others are seldom heard in pairs. */
const TRIADS = MATERIALS.filter((m) => m.family === 'triad' && !/^sus|lydian|phrygian|major b5/.test(m.name))
export const GROUP = 3
const LEAST_GROUPS = 2

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

/** For each note the longest pair run that begins there; null where none does. */
export const pairRunsFrom = (notes: readonly HeardNote[], timeline: Timeline): readonly (PairRun | null)[] => {
  const triads = notes.map((_, i) => triadAt(notes, i, timeline))
  return notes.map((_, from) => {
    const [a, b] = [triads[from], triads[from + GROUP]]
    if (!a || !b || shared(a.set, b.set) !== 0) return null
    let groups = LEAST_GROUPS
    while (triads[from + groups * GROUP]?.set === (groups % 2 === 0 ? a : b).set) groups++
    return { from, to: from + groups * GROUP - 1, pair: pairOf(a, b) }
  })
}
