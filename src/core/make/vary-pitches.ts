import { lastWhere } from '../grouped.ts'
import { endOf, type Line, type LineNote } from '../line/line.ts'
import type { Overlay } from '../material/overlay.ts'
import { has, rotate } from '../pitch/pcset.ts'
import { midi, type PcSet, pitchClass, ticks } from '../pitch/units.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import { ladderOf } from './ground.ts'

/** A line made of another one, and what was done. */
export type Named = readonly [name: string, line: Line]

/** The same moments with other pitches. */
export const atPitches = (part: Line, pitches: readonly number[]): Line =>
  part.map((n, i) => ({ at: n.at, for: n.for, pitch: midi(pitches[i] ?? n.pitch) }))

/** The home scale at a moment; every note where no chord sounds. */
export const homeAt = (timeline: Timeline, at: number): PcSet => {
  const place = soundingAt(timeline, at)?.place
  return place ? rotate(place.home.inside, place.chord.root.pc) : (0xfff as PcSet)
}

/** A pitch moved by steps of a set; off the set it is moved with the note of it below. */
const bySteps = (set: PcSet, pitch: number, steps: number): number => {
  const ladder = ladderOf({ set }, pitch - 60, pitch + 60)
  const at = lastWhere(ladder, (p) => p <= pitch)
  const from = ladder[at] ?? pitch
  return (ladder[at + steps] ?? pitch) + (pitch - from)
}

const stepsBetween = (set: PcSet, from: number, to: number): number => {
  const ladder = ladderOf({ set }, Math.min(from, to) - 14, Math.max(from, to) + 14)
  const at = (p: number) => lastWhere(ladder, (q) => q <= p)
  return at(to) - at(from)
}

/** About its first note: in the home scale there, and exactly. */
export const upsideDown = (part: Line, timeline: Timeline): readonly Named[] => {
  const first = part[0]
  if (!first) return []
  const exact = atPitches(
    part,
    part.map((n) => 2 * first.pitch - n.pitch),
  )
  const set = homeAt(timeline, first.at)
  const inScale = atPitches(
    part,
    part.map((n) => bySteps(set, first.pitch, -stepsBetween(set, first.pitch, n.pitch))),
  )
  return [
    ['upside down in the scale', inScale],
    ['upside down, exact', exact],
  ]
}

/** How far each repetition of a sequence stands from the one before: in half steps, or in steps of the home scale. */
export type Interval = { readonly semitones: number } | { readonly steps: number }

const intervalWords = (by: Interval): string => {
  const [n, what] = 'semitones' in by ? [by.semitones, 'half step'] : [by.steps, 'step']
  return `${Math.abs(n)} ${what}${Math.abs(n) === 1 ? '' : 's'} ${n < 0 ? 'down' : 'up'}${'steps' in by ? ' the scale' : ''}`
}

/** A motif again and again, each time an interval further, on the next whole beat. */
export const sequence = (part: Line, by: Interval, times: number, timeline: Timeline): Named => {
  const [first, last] = [part[0], part.at(-1)]
  if (!first || !last) return ['a sequence', part]
  const length = Math.ceil((endOf(last) - first.at) / timeline.beat) * timeline.beat
  const move = (n: LineNote, k: number): number =>
    'semitones' in by ? n.pitch + k * by.semitones : bySteps(homeAt(timeline, n.at + k * length), n.pitch, k * by.steps)
  const line = Array.from({ length: times + 1 }, (_, k) =>
    part.map((n) => ({ at: ticks(n.at + k * length), for: n.for, pitch: midi(move(n, k)) })),
  ).flat()
  return [`a sequence, ${intervalWords(by)}`, line]
}

/** The nearest note of a set to a pitch, the one below where two are as near. */
const nearestOf = (set: PcSet, pitch: number): number => {
  for (let by = 0; by <= 6; by++) for (const p of [pitch - by, pitch + by]) if (has(set, pitchClass(p))) return p
  return pitch
}

/** A stretch on another overlay: by the same places of its notes, or its shape moved as a whole. */
export const carried = (part: Line, { set, name }: Overlay): readonly Named[] => {
  const first = part[0]
  if (!first) return []
  const own = part.reduce((all, n) => all | (1 << pitchClass(n.pitch)), 0) as PcSet
  const start = nearestOf(set, first.pitch)
  const placed = part.map((n) => bySteps(set, start, stepsBetween(own, first.pitch, n.pitch)))
  return [
    [`the same places of ${name}`, atPitches(part, placed)],
    [
      `the same shape, from ${name}`,
      atPitches(
        part,
        part.map((n) => n.pitch + start - first.pitch),
      ),
    ],
  ]
}
