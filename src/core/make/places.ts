import { type Chord, isDominant } from '../chord/chord.ts'
import { endOf, type Line, type LineNote, lineOf } from '../line/line.ts'
import { has } from '../pitch/pcset.ts'
import { type Midi, midi, pitchClass, ticks } from '../pitch/units.ts'
import type { Weights } from '../reading/weights.ts'
import { beatAt, type Sounding, type Timeline } from '../time/timeline.ts'
import { type Lick, type Seat, seatOf } from './lick.ts'

/** A place in a chart where a lick fits: moved there, cut where the chord leaves too soon and ended on a landing. */
export interface LickPlace {
  readonly bar: number
  readonly beat: number
  readonly chord: string
  readonly line: Line
  readonly cut: boolean
  readonly startDegree: string
  readonly fade: number
}

const moved = (line: Line, semitones: number, by: number): Line =>
  line.map((n) => ({ at: ticks(n.at + by), for: n.for, pitch: midi(n.pitch + semitones) }))

/** The nearest chord tone to a pitch: by a half step, then held, then a whole step and on. */
const landingOn = (chord: Chord, from: number): Midi => {
  const near = [-1, 1, 0, -2, 2, -3, 3, -4, 4, -5, 5, -6, 6]
  return midi(from + (near.find((by) => has(chord.ownSet, pitchClass(from + by - chord.root.pc))) ?? 0))
}

/** A line up to a moment, then a landing on the chord that begins there. */
export const cutAt = (line: Line, at: number, next: Chord | null, length: number): Line => {
  const kept = line.filter((n) => n.at < at).map((n) => ({ ...n, for: ticks(Math.min(n.for, at - n.at)) }))
  const last = kept.at(-1)
  if (!last || !next) return lineOf(kept)
  const landing: LineNote = { at: ticks(at), for: ticks(length), pitch: landingOn(next, last.pitch) }
  return lineOf([...kept, landing])
}

/** Soundings of one chord that follow each other are one. */
const stretches = ({ soundings }: Timeline): readonly (readonly [Sounding, number, Sounding | null])[] => {
  const starts = soundings.filter((s, i) => s.place && s.place.chord.symbol !== soundings[i - 1]?.place?.chord.symbol)
  return starts.map((s) => {
    const after = soundings.slice(s.index + 1).find((n) => n.place?.chord.symbol !== s.place?.chord.symbol) ?? null
    return [s, after?.from ?? soundings.at(-1)?.to ?? s.to, after] as const
  })
}

/** At least so much of a lick is left where it is cut. */
const LEAST_LEFT = 0.5
const HALVES = Array.from({ length: 12 }, (_, i) => (i > 6 ? i - 12 : i))

/** Every place of a chart where a lick serves, in its best transposition there. `gate` lets it over dominants. */
export const placesIn = (
  lick: Lick,
  timeline: Timeline,
  gate: boolean,
  range: readonly [number, number],
  weights: Weights,
): readonly LickPlace[] => {
  const first = lick.line[0]?.at ?? 0
  const bar = timeline.beat * timeline.beatsInBar
  const within = first % bar
  const fits = (by: number): boolean => lick.line.every((n) => n.pitch + by >= range[0] && n.pitch + by <= range[1])
  return stretches(timeline).flatMap(([s, end, after]): readonly LickPlace[] => {
    const place = s.place
    if (!place || (!gate && isDominant(place.chord))) return []
    const start = s.from + within
    const left = lick.line.filter((n) => n.at - first + start < end)
    if (left.length < Math.max(3, lick.line.length * LEAST_LEFT)) return []
    let found: { readonly by: number; readonly seat: Seat } | null = null
    for (const half of HALVES) {
      const by = [half, half + 12, half - 12].find(fits)
      const seat = by === undefined ? null : seatOf({ ...lick, line: left }, place, by, weights)
      if (by !== undefined && seat && (!found || seat.fade < found.seat.fade)) found = { by, seat }
    }
    if (!found) return []
    const there = moved(lick.line, found.by, start - first)
    const cut = there.some((n) => endOf(n) > end)
    const line = cut ? cutAt(there, end, after?.place?.chord ?? null, timeline.beat) : there
    return [
      { bar: s.spot.spot.bar, beat: beatAt(start, s), chord: place.chord.symbol, line, cut, ...seatTold(found.seat) },
    ]
  })
}

const seatTold = ({ startDegree, fade }: Seat) => ({ startDegree, fade })
