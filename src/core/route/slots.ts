import type { AnalysedSpot, Analysis } from '../chart/analyse.ts'
import { beatOf, beatsOf } from '../chart/chart.ts'
import { type Override, overrideAt, sameBeat } from '../chart/overrides.ts'
import type { Chord } from '../chord/chord.ts'
import { placeWithHome } from '../reading/read.ts'
import type { Place } from '../reading/role.ts'
import type { School } from '../reading/school.ts'

/** A place in a chart: bar as played, beat from 1. */
export interface At {
  readonly bar: number
  readonly beat: number
}

export interface Cut extends At {
  /** The beat, in the same bar, at which the spot is cut in two. */
  readonly at: number
}

/** Where a chart's spots are not taken as they come. */
export interface SlotOptions {
  /** First and last bar, null for all. */
  readonly bars: readonly [number, number] | null
  readonly cuts: readonly Cut[]
  /** Spots that carry on the overlay of the step before. */
  readonly joins: readonly At[]
  /** Whether a chord that is held over several spots keeps one overlay. */
  readonly holdsAsOne: boolean
  /** Spots that begin anew all the same. */
  readonly anew: readonly At[]
}

export const SPOT_BY_SPOT: SlotOptions = { bars: null, cuts: [], joins: [], holdsAsOne: false, anew: [] }

/** One step of a route to be: a spot, or a part of one, in its place. */
export interface Slot extends At {
  readonly index: number
  readonly beats: number
  readonly chord: Chord
  readonly place: Place
  readonly spot: AnalysedSpot
  /** Which cadence it belongs to, from its ii or V to the first spot of its arrival; null outside of any. */
  readonly cadence: number | null
  /** Whether it carries on the overlay of the slot before. */
  readonly carries: boolean
}

export const sameAt = (a: At, b: At): boolean => a.bar === b.bar && sameBeat(a.beat, b.beat)

/** For each spot the chain it stands in, up to the first spot of what the chain arrives on. */
const cadencesOf = ({ chains }: Analysis): ReadonlyMap<number, number> => {
  const cadences = new Map<number, number>()
  for (const [n, chain] of chains.entries()) {
    const first = chain.from.spots[0]?.index ?? 0
    const last = (chain.kind === 'ii-V-I' ? chain.to.spots[0] : chain.to.spots.at(-1))?.index ?? first
    for (let i = first; i <= last; i++) if (!cadences.has(i)) cadences.set(i, n)
  }
  return cadences
}

type Said = readonly Override[]

/**
 * The slots of a chart: its spots without `N.C.`, cut and joined as wished. Both parts of a cut spot keep its job; the
 * first lands back into the same chord. Source: theory page, section 8.
 */
export const slotsOf = (analysis: Analysis, said: Said, school: School, wish: SlotOptions): readonly Slot[] => {
  const cadences = cadencesOf(analysis)
  const slots: Slot[] = []
  for (const s of analysis.spots) {
    const { chord, bar } = s.spot
    if (chord.kind === 'no chord' || (wish.bars && (bar < wish.bars[0] || bar > wish.bars[1]))) continue
    const from = beatOf(s.spot)
    const to = from + beatsOf(s.spot)
    const cuts = wish.cuts
      .filter((c) => c.bar === bar && c.at > from && c.at < to)
      .map((c) => c.at)
      .sort((a, b) => a - b)
    const starts = [from, ...cuts]
    const home = overrideAt(said, bar, from)?.home
    for (const [part, beat] of starts.entries()) {
      const end = starts[part + 1] ?? to
      const last = slots.at(-1)
      const has = (all: readonly At[]): boolean => all.some((a) => sameAt(a, { bar, beat }))
      const stays = last?.chord.symbol === chord.symbol && part === 0 && !has(wish.anew)
      slots.push({
        index: slots.length,
        bar,
        beat,
        beats: end - beat,
        chord,
        place: placeWithHome(chord, part < starts.length - 1 ? chord : s.next, school, s.job, home),
        spot: s,
        cadence: cadences.get(s.index) ?? null,
        carries: slots.length > 0 && ((wish.holdsAsOne && stays) || has(wish.joins)),
      })
    }
  }
  return slots
}

/** Whether the same chord goes on from one slot to the next. */
export const isHeld = (from: Slot, to: Slot): boolean => from.chord.symbol === to.chord.symbol

/** Whether the seam between two neighbouring slots stands under a motion rule of that scope. */
export const isRuled = (from: Slot, to: Slot, scope: 'cadence' | 'throughout'): boolean =>
  scope === 'throughout' || (from.cadence !== null && from.cadence === to.cadence)

/** The beat on which the spot of a slot begins. */
export const spotStart = (slots: readonly Slot[], slot: Slot): number =>
  slots.find((s) => s.spot === slot.spot)?.beat ?? slot.beat
