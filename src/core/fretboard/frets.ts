import { has } from '../pitch/pcset.ts'
import { type Midi, midi, type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import type { Tuning } from './tuning.ts'

/** One place on the neck. `string` counts from the lowest; fret 0 is the open string. */
export interface Fret {
  readonly string: number
  readonly fret: number
  readonly pitch: Midi
  readonly pc: PitchClass
}

/** A stretch of the neck, both ends included. */
export interface Position {
  readonly from: number
  readonly to: number
}

export const LAST_FRET = 17
export const WHOLE_NECK: Position = { from: 0, to: LAST_FRET }
/** A hand's width: four fingers and one stretch. */
const HAND = 4

/** Places for the hand: open strings first, then every other fret, a hand's width each. */
export const POSITIONS: readonly Position[] = Array.from({ length: 7 }, (_, i) => {
  const from = i === 0 ? 0 : 2 * i
  return { from, to: from + HAND }
})

/** Every place in a position, lowest string first, each with its pitch. */
export const fretsIn = (tuning: Tuning, { from, to }: Position): readonly Fret[] =>
  tuning.flatMap((open, string) =>
    Array.from({ length: to - from + 1 }, (_, i) => {
      const pitch = midi(open + from + i)
      return { string, fret: from + i, pitch, pc: pitchClass(pitch) }
    }),
  )

/** The places of a set's notes in a position. */
export const fretsOf = (tuning: Tuning, set: PcSet, position: Position): readonly Fret[] =>
  fretsIn(tuning, position).filter((f) => has(set, f.pc))
