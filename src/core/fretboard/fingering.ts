import type { Midi } from '../pitch/units.ts'
import { LAST_FRET, type Position, WHOLE_NECK } from './frets.ts'
import type { Tuning } from './tuning.ts'

/** Where a note of a line is stopped: `string` from the lowest, fret 0 open; `hand` is the fret under the first finger. */
export interface Fingered {
  readonly string: number
  readonly fret: number
}

interface Place extends Fingered {
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
const ALL_OF_IT: NeckUse = { window: WHOLE_NECK, open: true }

const placesOf = (pitch: number, tuning: Tuning, { window, open: mayBeOpen }: NeckUse): readonly Place[] =>
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

/** What it takes to go from one place to the next: small shifts, near strings, the next finger rather than a leap. */
const effort = (a: Place, b: Place): number => {
  const shift = Math.abs(a.hand - b.hand)
  const strings = Math.abs(a.string - b.string)
  return (shift === 0 ? 0 : 1 + shift * 0.4) + (strings > 1 ? (strings - 1) * 0.5 : strings * 0.1)
}

/** More than two notes in a row on one string cost a little: two notes per string lie well. */
const riding = (run: number): number => (run > MOST_RIDES ? 0.25 : 0)

/**
 * Frets for a line, by dynamic programming over strings and hand positions: two notes per string, small shifts. Null for
 * a note that is not on the neck. Source: theory page, section 10.
 */
export const fingeringOf = (
  pitches: readonly Midi[],
  tuning: Tuning,
  use: NeckUse = ALL_OF_IT,
): readonly (Fingered | null)[] => {
  interface State {
    readonly place: Place
    readonly cost: number
    readonly run: number
    readonly before: State | null
  }
  let states: readonly State[] = []
  const ends: (readonly State[])[] = []
  for (const pitch of pitches) {
    const places = placesOf(pitch, tuning, use)
    const from = states
    const now = places.map((place): State => {
      let best: State = { place, cost: strain(place), run: 1, before: null }
      let least = from.length === 0 ? best.cost : Infinity
      for (const s of from) {
        const run = s.place.string === place.string ? s.run + 1 : 1
        const cost = s.cost + strain(place) + effort(s.place, place) + riding(run)
        if (cost < least) [best, least] = [{ place, cost, run, before: s }, cost]
      }
      return best
    })
    ends.push(now)
    if (now.length > 0) states = now
  }
  const fingered: (Fingered | null)[] = pitches.map(() => null)
  let at: State | null = states.reduce<State | null>((best, s) => (best && best.cost <= s.cost ? best : s), null)
  for (let i = pitches.length - 1; i >= 0; i--) {
    if (!at || (ends[i] ?? []).length === 0) continue
    fingered[i] = { string: at.place.string, fret: at.place.fret }
    at = at.before
  }
  return fingered
}
