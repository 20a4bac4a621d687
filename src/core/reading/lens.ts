import { shared, sizeOf, union } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { exitsOf, targetsOf } from './exits.ts'
import { noteFade, overlayFade } from './fade.ts'
import { exitWeight } from './read.ts'
import { type Place, standingAt } from './role.ts'
import type { Weights } from './weights.ts'

/** Sums over the notes of a set; `worst` is the highest fade among them. */
interface Sums {
  readonly fade: number
  readonly worst: number
  /** Best exits in hundredths, each times its weight in the landing. */
  readonly exit: number
  readonly weight: number
}

/** What decides an overlay's rank: the sums of every half octave's sets, so that a set takes two look-ups. */
export interface Lens {
  readonly low: readonly Sums[]
  readonly high: readonly Sums[]
  readonly rubs: PcSet
  readonly suspensions: PcSet
  readonly denied: PcSet
}

const HALF = 64
const NOTHING: Sums = { fade: 0, worst: 0, exit: 0, weight: 0 }

const halfOf = (notes: readonly Sums[]): readonly Sums[] => {
  const sums: Sums[] = [NOTHING]
  for (let set = 1; set < HALF; set++) {
    const top = 31 - Math.clz32(set)
    const rest = sums[set & ~(1 << top)] ?? NOTHING
    const note = notes[top] ?? NOTHING
    sums.push({
      fade: rest.fade + note.fade,
      worst: Math.max(rest.worst, note.worst),
      exit: rest.exit + note.exit,
      weight: rest.weight + note.weight,
    })
  }
  return sums
}

/** A chord where it stands, made ready to measure thousands of sets. */
export const lensOf = (place: Place, weights: Weights): Lens => {
  const { chord } = place
  const targets = place.next === null ? null : targetsOf(place.next, place.school)
  const notes: Sums[] = []
  let rubs = 0
  let suspensions = 0
  let denied = 0
  for (let pc = 0; pc < 12; pc++) {
    const standing = standingAt(place, pitchClass(pc - chord.root.pc))
    const { role } = standing
    const fade = noteFade(standing, chord, weights)
    const weight = exitWeight(standing)
    const exit = targets ? weight * Math.round(100 * (exitsOf(pc, targets)[0]?.strength ?? 0)) : 0
    notes.push({ fade, worst: fade, exit, weight })
    if (standing.rub !== null) rubs |= 1 << pc
    if (role === 'suspension' && !standing.blue) suspensions |= 1 << pc
    if (standing.denied) denied |= 1 << pc
  }
  return {
    low: halfOf(notes.slice(0, 6)),
    high: halfOf(notes.slice(6)),
    rubs: rubs as PcSet,
    suspensions: suspensions as PcSet,
    denied: denied as PcSet,
  }
}

/** What a ranking goes by. Fade and landing are those of the whole reading. */
export interface Measured {
  readonly fade: number
  readonly landing: number | null
  readonly rubs: number
  readonly suspensions: number
  /** Notes that rub or that the symbol denies. */
  readonly wrong: number
}

/** Measures one set; `passing` is left out of its worst note, `next` says whether there is a chord to land on. */
export const measure = (set: PcSet, passing: number | null, lens: Lens, next: boolean, weights: Weights): Measured => {
  const low = lens.low[set & (HALF - 1)] ?? NOTHING
  const high = lens.high[set >> 6] ?? NOTHING
  const lasting = passing === null ? set : set & ~(1 << passing)
  const worst =
    passing === null
      ? Math.max(low.worst, high.worst)
      : Math.max(lens.low[lasting & (HALF - 1)]?.worst ?? 0, lens.high[lasting >> 6]?.worst ?? 0)
  return {
    fade: overlayFade(low.fade + high.fade, sizeOf(set), worst, weights),
    landing: next ? Math.round((low.exit + high.exit) / (low.weight + high.weight)) : null,
    rubs: sizeOf(shared(set, lens.rubs)),
    suspensions: sizeOf(shared(set, lens.suspensions)),
    wrong: sizeOf(shared(set, union(lens.rubs, lens.denied))),
  }
}
