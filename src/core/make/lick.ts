import type { Chord } from '../chord/chord.ts'
import { lastWhere } from '../grouped.ts'
import { endOf, type Line } from '../line/line.ts'
import { pitchClass } from '../pitch/units.ts'
import { noteFade } from '../reading/fade.ts'
import { type Place, type Standing, standingAt } from '../reading/role.ts'
import type { Weights } from '../reading/weights.ts'
import { isStrongAt, type Timeline } from '../time/timeline.ts'
import { comingHome, isOut } from './coming-home.ts'

/** A lick over one chord: its notes, and where its beats are. */
export interface Lick {
  readonly line: Line
  /** Ticks of a beat, and the beats of its bar that are strong (ticks from the bar's start). */
  readonly beat: number
  readonly isStrong: (at: number) => boolean
}

/** A line as a lick over a chart: its strong beats are the chart's. */
export const lickOver = (line: Line, timeline: Timeline): Lick => ({
  line,
  beat: timeline.beat,
  isStrong: (at) => isStrongAt(at, timeline),
})

/** How a lick sits over a chord, as far as its judgement needs it. */
export interface Seat {
  readonly fade: number
  /** How well what went outside came home, 0..100; 100 where nothing did. */
  readonly landing: number
  readonly startDegree: string
}

interface Heard extends Standing {
  readonly at: number
  readonly for: number
  readonly pitch: number
  readonly strong: boolean
  readonly fade: number
}

const hear = (lick: Lick, place: Place, by: number, weights: Weights): readonly Heard[] =>
  lick.line.map((n) => {
    const pitch = n.pitch + by
    const standing = standingAt(place, pitchClass(pitch - place.chord.root.pc))
    const fade = noteFade(standing, place.chord, weights)
    return { ...standing, at: n.at, for: n.for, pitch, strong: lick.isStrong(n.at), fade }
  })

/** Where a strong beat or a long note is outside, a rub or a suspension that rests, a lick does not serve. */
const isBorne = (n: Heard, i: number, all: readonly Heard[], beat: number): boolean => {
  const long = n.for >= beat || i === all.length - 1
  if (isOut(n)) return !n.strong && !long
  return n.role !== 'suspension' || n.blue || !long
}

/** A step or nothing from the last note that is outside to one that is not. */
const lands = (all: readonly Heard[]): boolean => {
  const last = lastWhere(all, isOut)
  const next = all[last + 1]
  return last < 0 || (next !== undefined && Math.abs(next.pitch - (all[last] as Heard).pitch) <= 2)
}

/** How a lick sits over a chord, moved by semitones; null where it does not serve there. Source: make page, reuse. */
export const seatOf = (lick: Lick, place: Place, by: number, weights: Weights): Seat | null => {
  const all = hear(lick, place, by, weights)
  const [first] = all
  if (!first || !all.every((n, i) => isBorne(n, i, all, lick.beat)) || !lands(all)) return null
  return {
    fade: Math.round(all.reduce((sum, n) => sum + n.fade, 0) / all.length),
    landing: comingHome(all) ?? 100,
    startDegree: place.chord.quality.degrees[first.up]?.name ?? '1',
  }
}

/** The note that makes a dominant of what is played: a dominant's own third, else the leading tone to the chord's root. */
export const leadingTone = ({ family, root }: Chord): number =>
  pitchClass(family === 'dominant' ? root.pc + 4 : root.pc - 1)

/** A part of a lick by place in it, both ends included, and the chord it implies by itself. */
export interface LickPart {
  readonly from: number
  readonly to: number
  readonly implies: string
  readonly isDominant: boolean
}

/** A dominant's chord tones above its third. */
const DOMINANT_TONES = [0, 3, 6, 8]

/** Where a lick falls into its dominant half and its tonic half: where it leaves the dominant's tones, else in the middle. */
const boundary = (line: Line, leading: number): number => {
  const last = lastWhere(line, (n) => pitchClass(n.pitch) === leading)
  const leaves = line.findIndex((n, i) => i > last && !DOMINANT_TONES.includes(pitchClass(n.pitch - leading)))
  if (last >= 0 && leaves > 0) return leaves
  const first = line[0]?.at ?? 0
  const middle = first + (endOf(line.at(-1) as Line[number]) - first) / 2
  const half = line.findIndex((n) => n.at >= middle)
  return half > 0 ? half : line.length
}

/** The two halves of a lick over a chord; one where it is too short to halve. */
export const partsOf = ({ line }: Lick, chord: Chord, dominant: string): readonly LickPart[] => {
  const leading = leadingTone(chord)
  const cut = line.length < 4 ? line.length : boundary(line, leading)
  return [
    [0, cut - 1],
    [cut, line.length - 1],
  ].flatMap(([from = 0, to = 0]): readonly LickPart[] => {
    if (from > to) return []
    const isDominant = line.slice(from, to + 1).some((n) => pitchClass(n.pitch) === leading)
    return [{ from, to, isDominant, implies: isDominant ? dominant : chord.symbol }]
  })
}
