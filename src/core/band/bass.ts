import type { Chord } from '../chord/chord.ts'
import { has } from '../pitch/pcset.ts'
import { type Midi, midi, pitchClass } from '../pitch/units.ts'
import type { Place } from '../reading/role.ts'

/** One note the bass has to play: what the groove wants there, and where it stands in its chord. */
export interface BassBeat {
  readonly want: string
  readonly place: Place
  /** The chord that follows; null where nothing does. */
  readonly next: Chord | null
  readonly first: boolean
  /** The last note before another chord. */
  readonly last: boolean
}

/** The range of the instrument, and where its hand rests. */
const LOW = 28
const HIGH = 52
const REST = 40

const FIFTH = 7

/** The fifth a chord has: its own where it is altered, the plain one where it has none. */
const fifthOf = ({ quality }: Chord): number => quality.own.find((d) => d.step === 5)?.semitones ?? FIFTH

/** How ill a note suits its moment, 0 for the best; Infinity where it is out of the question. */
const illness = (pitch: number, { want, place, next, first, last }: BassBeat): number => {
  const { chord, home } = place
  const up = pitchClass(pitch - chord.root.pc)
  const bass = pitchClass(chord.bass.pc - chord.root.pc)
  if (want === '1') return up === bass ? 0 : Infinity
  if (want === '8') return up === 0 ? 0 : Infinity
  if (want === '5') return up === fifthOf(chord) ? 0 : up === bass ? 2 : Infinity
  if (first && want === 'w') return up === bass ? 0 : Infinity
  if ((last || want === 'a') && next) {
    const into = pitchClass(pitch - next.bass.pc)
    if (into === 1 || into === 11) return has(home.inside, up) ? 0 : 0.4
    if (into === 2 || into === 10) return has(home.inside, up) ? 0.3 : Infinity
    if (into === FIFTH) return has(home.inside, up) ? 0.6 : 1.2
    if (into === 0) return 4
  }
  if (up === bass) return 0.8
  if (has(chord.ownSet, up)) return 0
  return has(home.inside, up) ? 0.6 : Infinity
}

/** How hard it is to go from one note to another. */
const leap = (from: number, to: number): number => {
  const d = Math.abs(to - from)
  if (d === 0) return 2.5
  if (d <= 2) return 0
  if (d <= 5) return 0.35 + d * 0.05
  if (d === FIFTH) return 0.8
  if (d === 12) return 1
  return d < 12 ? 1.6 : 5
}

const strain = (pitch: number): number => Math.abs(pitch - REST) * 0.03

/**
 * A bass line, one pitch for each beat: of all lines the one that suits best note by note and leaps least, found by
 * dynamic programming; linear in the beats.
 */
export const bassLine = (beats: readonly BassBeat[]): readonly Midi[] => {
  const range = Array.from({ length: HIGH - LOW + 1 }, (_, i) => LOW + i)
  const came: (readonly number[])[] = []
  let costs = range.map((p) => (beats[0] ? illness(p, beats[0]) + strain(p) : 0))
  for (const beat of beats.slice(1)) {
    const from: number[] = []
    costs = range.map((p, i) => {
      const here = illness(p, beat) + strain(p)
      let [best, cost] = [0, Infinity]
      if (here < Infinity)
        for (const [k, q] of range.entries()) {
          const all = (costs[k] ?? Infinity) + leap(q, p)
          if (all < cost) [best, cost] = [k, all]
        }
      from[i] = best
      return cost + here
    })
    came.push(from)
  }
  if (beats.length === 0) return []
  let at = costs.indexOf(Math.min(...costs))
  const line = [at]
  for (const from of [...came].reverse()) {
    at = from[at] ?? 0
    line.unshift(at)
  }
  return line.map((i) => midi(LOW + i))
}
