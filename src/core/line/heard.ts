import { type Note, plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { noteFade } from '../reading/fade.ts'
import { type Role, standingAt } from '../reading/role.ts'
import type { Weights } from '../reading/weights.ts'
import { beatAt, isStrong, type Sounding, soundingAfter, soundingAt, type Timeline } from '../time/timeline.ts'
import { endOf, type Line, type LineNote } from './line.ts'

/** A note of a line over the chord that sounds when it begins. Without a chord it has no role. */
export interface HeardNote extends LineNote {
  readonly n: number
  readonly bar: number
  /** From 1, with its fraction. */
  readonly beat: number
  readonly onBeat: boolean
  readonly strong: boolean
  readonly name: Note
  readonly sounding: Sounding | null
  readonly following: Sounding | null
  readonly degree: string | null
  readonly role: Role | null
  readonly inHome: boolean
  readonly guide: boolean
  readonly rub: boolean
  readonly denied: boolean
  readonly blue: boolean
  readonly stated: boolean
  readonly fade: number
}

/** What sounds under a note, and what comes after that. */
interface Under {
  readonly sounding: Sounding | null
  readonly following: Sounding | null
}

const underAt = (at: number, timeline: Timeline): Under => {
  const sounding = soundingAt(timeline, at)
  return { sounding, following: sounding && soundingAfter(timeline, sounding) }
}

const hear = (note: LineNote, n: number, { sounding, following }: Under, weights: Weights): HeardNote => {
  const beat = sounding ? beatAt(note.at, sounding) : 1
  const place = sounding?.place
  const up = place ? pitchClass(note.pitch - place.chord.root.pc) : 0
  const standing = place ? standingAt(place, up) : null
  const guides = place ? place.chord.quality.guideSet : 0
  // Every field by its name, or it is slow to ask: there are too many for a note that is copied and added to.
  return {
    at: note.at,
    for: note.for,
    pitch: note.pitch,
    note: note.note,
    n,
    bar: sounding?.spot.spot.bar ?? 0,
    beat,
    onBeat: Math.abs(beat - Math.round(beat)) < 0.02,
    strong: isStrong(beat, sounding),
    name: note.note ?? place?.chord.heard[up] ?? plainNote(pitchClass(note.pitch)),
    sounding,
    following,
    degree: place ? (place.chord.quality.degrees[up]?.name ?? '1') : null,
    role: standing?.role ?? null,
    inHome: standing?.inHome ?? true,
    guide: standing?.role === 'chord' && ((guides >> up) & 1) === 1,
    rub: (standing?.rub ?? null) !== null,
    denied: standing?.denied ?? false,
    blue: standing?.blue ?? false,
    stated: standing?.stated ?? false,
    fade: place && standing ? noteFade(standing, place.chord, weights) : 0,
  }
}

export const heardLine = (line: Line, timeline: Timeline, weights: Weights): readonly HeardNote[] => {
  let under: Under = { sounding: null, following: null }
  return line.map((note, i) => {
    const { sounding } = under
    if (!sounding || note.at < sounding.from || note.at >= sounding.to) under = underAt(note.at, timeline)
    return hear(note, i, under, weights)
  })
}

export const isChordTone = (n: HeardNote | undefined): boolean => n?.role === 'chord'

/** Semitones from one note to the next, up positive. */
export const stepTo = (a: HeardNote, b: HeardNote): number => b.pitch - a.pitch

/** Whether a note is a chord tone of a chord. */
export const isToneOf = (n: LineNote, s: Sounding | null): boolean => {
  const chord = s?.place?.chord
  return chord !== undefined && ((chord.ownSet >> pitchClass(n.pitch - chord.root.pc)) & 1) === 1
}

/** A rest of more than this many beats parts a line: what comes after does not answer what came before. */
const BREAK_BEATS = 1.5
export const isParted = (a: HeardNote, b: HeardNote, { beat }: Timeline): boolean =>
  b.at - endOf(a) > BREAK_BEATS * beat
