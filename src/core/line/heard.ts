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

const hear = (note: LineNote, n: number, timeline: Timeline, weights: Weights): HeardNote => {
  const sounding = soundingAt(timeline, note.at)
  const beat = sounding ? beatAt(note.at, sounding) : 1
  const base = {
    ...note,
    n,
    bar: sounding?.spot.spot.bar ?? 0,
    beat,
    onBeat: Math.abs(beat - Math.round(beat)) < 0.02,
    strong: isStrong(beat, sounding),
    sounding,
    following: sounding && soundingAfter(timeline, sounding),
  }
  const place = sounding?.place
  if (!place)
    return {
      ...base,
      name: note.note ?? plainNote(pitchClass(note.pitch)),
      ...{
        degree: null,
        role: null,
        inHome: true,
        guide: false,
        rub: false,
        denied: false,
        blue: false,
        stated: false,
        fade: 0,
      },
    }
  const { chord } = place
  const up = pitchClass(note.pitch - chord.root.pc)
  const standing = standingAt(place, up)
  return {
    ...base,
    name: note.note ?? chord.heard[up] ?? plainNote(pitchClass(note.pitch)),
    degree: chord.quality.degrees[up]?.name ?? '1',
    role: standing.role,
    inHome: standing.inHome,
    guide: standing.role === 'chord' && ((chord.quality.guideSet >> up) & 1) === 1,
    rub: standing.rub !== null,
    denied: standing.denied,
    blue: standing.blue,
    stated: standing.stated,
    fade: noteFade(standing, chord, weights),
  }
}

export const heardLine = (line: Line, timeline: Timeline, weights: Weights): readonly HeardNote[] =>
  line.map((note, i) => hear(note, i, timeline, weights))

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
