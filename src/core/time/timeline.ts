import type { AnalysedSpot, Analysis } from '../chart/analyse.ts'
import { beatOf, beatTicks, type Chart, type Metre } from '../chart/chart.ts'
import { type Override, overrideAt } from '../chart/overrides.ts'
import type { Ticks } from '../pitch/units.ts'
import { placeWithHome } from '../reading/read.ts'
import type { Place } from '../reading/role.ts'
import type { School } from '../reading/school.ts'
import type { Span } from './bars.ts'
import { lastBegun } from './last-begun.ts'

/** A chord as it sounds over a line: from and to in ticks from the start of the chart. */
export interface Sounding {
  readonly index: number
  readonly spot: AnalysedSpot
  readonly from: number
  readonly to: number
  /** Null on `N.C.` */
  readonly place: Place | null
}

/** The chart laid out in time; it begins again where it ends, as often as a line asks. */
export interface Timeline {
  readonly soundings: readonly Sounding[]
  readonly length: number
  /** How many soundings on from each the next chord stands. */
  readonly chordAfter: readonly number[]
  /** A beat and a bar of the metre it begins in: what lengths are measured by. */
  readonly beat: Ticks
  readonly beatsInBar: number
}

export const timelineOf = (chart: Chart, { spots }: Analysis, said: readonly Override[], school: School): Timeline => {
  const beat = beatTicks(chart.metre)
  let from = 0
  const soundings = spots.map((spot, index): Sounding => {
    const { chord, bar, length } = spot.spot
    const home = overrideAt(said, bar, beatOf(spot.spot))?.home
    const place = chord.kind === 'chord' ? placeWithHome(chord, spot.next, school, spot.job, home) : null
    const sounding = { index, spot, from, to: from + length, place }
    from += length
    return sounding
  })
  return { soundings, length: from, chordAfter: chordsAfter(soundings), beat, beatsInBar: chart.metre.beats }
}

/** The bar that a moment stands in, in the chorus it is in; null where nothing sounds. */
export const barRound = (timeline: Timeline, at: number): (Span & { readonly metre: Metre }) | null => {
  const sounding = soundingAt(timeline, at)
  if (!sounding) return null
  const { bar, at: within, metre } = sounding.spot.spot
  let last = sounding.index
  while (timeline.soundings[last + 1]?.spot.spot.bar === bar) last++
  const from = sounding.from - within
  const after = (timeline.soundings[last]?.to ?? 0) - (timeline.soundings[sounding.index]?.to ?? 0)
  return { from, to: sounding.to + after, metre }
}

/** What sounds at a moment, with its times moved to the chorus it is in. */
export const soundingAt = ({ soundings, length }: Timeline, at: number): Sounding | null => {
  if (length === 0) return null
  const chorus = Math.floor(at / length)
  const within = at - chorus * length
  const found = soundings[lastBegun(soundings.length, (i) => soundings[i]?.from ?? 0, within)]
  return found && within < found.to
    ? { ...found, from: found.from + chorus * length, to: found.to + chorus * length }
    : null
}

/** The chord that follows, after any bars without one. */
export const soundingAfter = ({ soundings, length, chordAfter }: Timeline, s: Sounding): Sounding | null => {
  const ahead = chordAfter[s.index] ?? 0
  const next = soundings[(s.index + ahead) % soundings.length]
  if (ahead === 0 || !next) return null
  const chorus = s.from - (soundings[s.index]?.from ?? 0) + (s.index + ahead >= soundings.length ? length : 0)
  return { ...next, from: next.from + chorus, to: next.to + chorus }
}

/** For each sounding, how many on the next one with a chord stands, round the corner too; 0 where none has any. */
export const chordsAfter = (soundings: readonly Sounding[]): readonly number[] => {
  const size = soundings.length
  const ahead: number[] = Array.from({ length: size }, () => 0)
  let last = -1
  for (let i = 2 * size - 1; i >= 0; i--) {
    if (last >= 0) ahead[i % size] = last - i
    if (soundings[i % size]?.place) last = i
  }
  return ahead
}

/** Beats of a bar that are heard as strong: the first, and where a long bar begins its second half or group. */
const STRONG: Readonly<Record<number, readonly number[]>> = { 4: [1, 3], 5: [1, 4], 6: [1, 4], 7: [1, 5] }

export const isStrong = (beat: number, sounding: Sounding | null): boolean =>
  sounding !== null && (STRONG[sounding.spot.spot.metre.beats] ?? [1]).some((b) => Math.abs(b - beat) < 0.02)

/** The beat of its bar that a moment stands on, from 1, with its fraction; 0 where nothing sounds. */
export const beatAt = (at: number, sounding: Sounding | null): number => {
  if (!sounding) return 0
  const { at: within, metre } = sounding.spot.spot
  return 1 + Math.round(((at - sounding.from + within) / beatTicks(metre)) * 1000) / 1000
}

/** Whether a moment stands on a strong beat. */
export const isStrongAt = (at: number, timeline: Timeline): boolean => {
  const sounding = soundingAt(timeline, at)
  return isStrong(beatAt(at, sounding), sounding)
}
