import type { Midi } from '../pitch/units.ts'
import { LAST_FRET, type Position, WHOLE_NECK } from './frets.ts'
import type { Tuning } from './tuning.ts'

/** Where a note of a line is stopped: `string` from the lowest, fret 0 open. */
export interface Fingered {
  readonly string: number
  readonly fret: number
}

/** With the fret under the first finger. */
export interface Place extends Fingered {
  readonly hand: number
}

/** The hand covers four frets, and one more by a stretch. */
const SPAN = 4
const STRETCH = 0.6
const HIGH_FROM = 12
const MOST_RIDES = 2

/** What of the neck may be used: a window of frets, and the open strings beside it. */
export interface NeckUse {
  readonly window: Position
  readonly open: boolean
}
export const ALL_OF_IT: NeckUse = { window: WHOLE_NECK, open: true }

/** Every place of a pitch, with every way the hand may stand there. */
export const placesOf = (pitch: number, tuning: Tuning, { window, open: mayBeOpen }: NeckUse): readonly Place[] =>
  tuning.flatMap((open, string) => {
    const fret = pitch - open
    if (fret < 0 || fret > LAST_FRET || (fret === 0 && !mayBeOpen)) return []
    if (fret > 0 && (fret < window.from || fret > window.to)) return []
    if (fret === 0) return Array.from({ length: LAST_FRET - SPAN + 1 }, (_, i) => ({ string, fret, hand: i + 1 }))
    const hands = Array.from({ length: SPAN + 1 }, (_, i) => fret - i).filter((h) => h >= 1)
    return hands.map((hand) => ({ string, fret, hand }))
  })

const strain = ({ fret, hand }: Place): number =>
  (fret > 0 && fret - hand >= SPAN ? STRETCH : 0) + (hand > HIGH_FROM ? 0.1 * (hand - HIGH_FROM) : 0)

/** A finger that stops the same fret on another string must roll over. */
const ROLL = 0.3
/** One note alone on a string, left for another: two strokes the same way at speed. */
const ALONE = 0.15

/** What it takes to go from one place to the next: small shifts, near strings, the next finger rather than a leap. */
const effort = (a: Place, b: Place): number => {
  const shift = Math.abs(a.hand - b.hand)
  const strings = Math.abs(a.string - b.string)
  const rolls = shift === 0 && strings > 0 && a.fret === b.fret && a.fret > 0
  const across = strings > 1 ? (strings - 1) * 0.5 : strings * 0.1
  return (shift === 0 ? 0 : 1 + shift * 0.4) + across + (rolls ? ROLL : 0)
}

/** Notes in a row on one string, up to one more than lie well. */
const LONGEST_RUN = MOST_RIDES + 1
const runAfter = (run: number, a: Place, b: Place): number =>
  a.string === b.string ? Math.min(LONGEST_RUN, run + 1) : 1

/** More than two notes in a row on one string cost a little, and so does one alone: two notes per string lie well. */
const stepCost = (run: number, a: Place, b: Place): number => {
  const riding = runAfter(run, a, b) > MOST_RIDES ? 0.25 : 0
  const alone = a.string !== b.string && run === 1 ? ALONE : 0
  return strain(b) + effort(a, b) + riding + alone
}

/** What places cost one after another, each with the fret under the first finger. */
export const fingeringCost = (places: readonly Place[]): number => {
  let [cost, run] = [0, 1]
  for (const [i, b] of places.entries()) {
    const a = places[i - 1]
    cost += a ? stepCost(run, a, b) : strain(b)
    run = a ? runAfter(run, a, b) : 1
  }
  return cost
}

interface State {
  readonly place: Place
  readonly run: number
  readonly cost: number
  readonly before: State | null
}

/** The cheapest way to each place, by how many notes stand on its string already. */
const reached = (from: readonly State[], places: readonly Place[]): readonly State[] =>
  places.flatMap((place) => {
    if (from.length === 0) return [{ place, run: 1, cost: strain(place), before: null }]
    const best: (State | undefined)[] = []
    for (const s of from) {
      const run = runAfter(s.run, s.place, place)
      const cost = s.cost + stepCost(s.run, s.place, place)
      if (cost < (best[run]?.cost ?? Number.POSITIVE_INFINITY)) best[run] = { place, run, cost, before: s }
    }
    return best.filter((s) => s !== undefined)
  })

/**
 * Frets for a line, exactly the cheapest by dynamic programming over string, fret, hand and notes on the string: two notes
 * per string, small shifts, no stretch over five frets. Null for a note that is not on the neck. Source: make page.
 */
export const fingeredPlaces = (
  pitches: readonly Midi[],
  tuning: Tuning,
  use: NeckUse = ALL_OF_IT,
): readonly (Place | null)[] => {
  let states: readonly State[] = []
  const isThere: boolean[] = []
  for (const pitch of pitches) {
    const places = placesOf(pitch, tuning, use)
    isThere.push(places.length > 0)
    if (places.length > 0) states = reached(states, places)
  }
  const fingered: (Place | null)[] = pitches.map(() => null)
  let at: State | null = states.reduce<State | null>((best, s) => (best && best.cost <= s.cost ? best : s), null)
  for (let i = pitches.length - 1; i >= 0; i--) {
    if (!at || !isThere[i]) continue
    fingered[i] = at.place
    at = at.before
  }
  return fingered
}

/** The same without the hand. */
export const fingeringOf = (
  pitches: readonly Midi[],
  tuning: Tuning,
  use: NeckUse = ALL_OF_IT,
): readonly (Fingered | null)[] =>
  fingeredPlaces(pitches, tuning, use).map((p) => p && { string: p.string, fret: p.fret })
