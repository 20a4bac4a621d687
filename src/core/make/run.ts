import type { LineNote } from '../line/line.ts'
import { has } from '../pitch/pcset.ts'
import { midi, type PcSet, pitchClass, ticks } from '../pitch/units.ts'

/** The notes to run through for a time, in ticks from the start of the chart. */
export interface RunStep {
  readonly from: number
  readonly to: number
  readonly set: PcSet
}

const LOW = 58
const HIGH = 82
const BEGIN = 66

/** The nearest note of a set from a pitch in a direction, itself included where that is asked for. */
const towards = (set: PcSet, from: number, way: 1 | -1, itself: boolean): number => {
  for (let p = itself ? from : from + way; p >= LOW && p <= HIGH; p += way) if (has(set, pitchClass(p))) return p
  return -1
}

/** The nearest other note of the next set: by a half step where there is one, going on in the same direction first. */
const overTheSeam = (set: PcSet, from: number, way: 1 | -1): number => {
  for (let by = 1; by <= 12; by++)
    for (const p of [from + way * by, from - way * by]) if (p >= LOW && p <= HIGH && has(set, pitchClass(p))) return p
  return from
}

/**
 * One set after another run through in equal notes, up and down within a voice's range; at each seam it goes on from the
 * nearest note. Gaps between steps are rests. Source: theory page, section 10.
 */
export const runThrough = (steps: readonly RunStep[], each: number): readonly LineNote[] => {
  const notes: LineNote[] = []
  let way: 1 | -1 = 1
  let last: number | null = null
  for (const { from, to, set } of steps) {
    if (set === 0) continue
    for (let at = from; at < to; at += each) {
      let pitch: number
      if (last === null) pitch = towards(set, BEGIN, 1, true)
      else if (at === from) pitch = overTheSeam(set, last, way)
      else {
        pitch = towards(set, last, way, false)
        if (pitch < 0) {
          way = way === 1 ? -1 : 1
          pitch = towards(set, last, way, false)
        }
      }
      if (pitch < 0) pitch = last ?? BEGIN
      if (last !== null && pitch !== last) way = pitch > last ? 1 : -1
      last = pitch
      notes.push({ at: ticks(at), for: ticks(Math.min(each, to - at)), pitch: midi(pitch) })
    }
  }
  return notes
}
