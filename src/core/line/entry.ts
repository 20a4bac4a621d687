import { degree, isDegree } from '../pitch/degree.ts'
import { toAscii } from '../pitch/glyphs.ts'
import { noteOn, plainNote } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { type Pitch, pitchOn } from '../pitch/register.ts'
import { type Midi, midi, pitchClass, ticks } from '../pitch/units.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import { insertNote } from './edit.ts'
import type { Line } from './line.ts'

/** One word of what is typed: a degree over the chord that sounds there, a rest, or the length of all that follows. */
export type EntryWord =
  | {
      readonly kind: 'degree'
      readonly degree: string
      readonly way: 'near' | 'up' | 'down'
      readonly beats: number | null
      readonly at: number
    }
  | { readonly kind: 'rest'; readonly beats: number | null }
  | { readonly kind: 'length'; readonly beats: number }

const EXPECTED = ['a degree such as b7', 'r for a rest', ':1/2 for the length in beats'] as const
const MOST_BEATS = 16

/** `1`, `1/2`, `1/3`, `1.5`: beats. */
const readBeats = (text: string): number | null => {
  const [, top, under] = /^(\d{1,2}(?:\.\d+)?)(?:\/(\d{1,2}))?$/.exec(text) ?? []
  const beats = Number(top) / Number(under ?? 1)
  return Number.isFinite(beats) && beats > 0 && beats <= MOST_BEATS ? beats : null
}

const WORD = /^([#b]{0,2}\d{1,2}|r)?(['’]|,)?(?::(.+))?$/

const readWord = (word: string, at: number): Result<EntryWord, TextError> => {
  const [, what, way, length] = WORD.exec(toAscii(word)) ?? []
  const beats = length === undefined ? null : readBeats(length)
  const wrong = fail<TextError>({ code: 'bad_entry', at, found: word, expected: EXPECTED })
  if (length !== undefined && beats === null) return wrong
  if (what === undefined) return beats === null || way !== undefined ? wrong : ok({ kind: 'length', beats })
  if (what === 'r') return way === undefined ? ok({ kind: 'rest', beats }) : wrong
  if (!isDegree(what)) return wrong
  return ok({ kind: 'degree', degree: what, way: way === undefined ? 'near' : way === ',' ? 'down' : 'up', beats, at })
}

/**
 * Reads what is typed into a line: degrees against the chord that sounds (`3 5 b7 9`), `'` for the next such note above
 * and `,` below, `r` a rest, `:1/2` the length in beats of what follows or, joined to a word, of that one.
 *
 *     entry  = word { (" " | "|") word }
 *     word   = (degree ["'" | ","] | "r") [":" beats] | ":" beats
 *     degree = ["#" | "b" | "##" | "bb"] number
 *     beats  = number ["." digits] ["/" number]
 */
export const readEntry = (text: string): Result<readonly EntryWord[], TextError> => {
  const words: EntryWord[] = []
  for (const match of text.matchAll(/[^\s|]+/g)) {
    const read = readWord(match[0], match.index)
    if (!read.ok) return read
    words.push(read.value)
  }
  return ok(words)
}

/** A line with the place where the next note goes, the length it will have, and the pitch it will be near. */
export interface Entry {
  readonly line: Line
  readonly at: number
  /** Ticks. */
  readonly length: number
  readonly near: Midi
}

const LOWEST = 24
const HIGHEST = 108

/** The pitch of a class nearest to another, downward where two are as near; or the next above or below it. */
export const pitchNear = (pc: number, near: number, way: 'near' | 'up' | 'down'): Midi => {
  const up = pitchClass(pc - near)
  if (way === 'up') return midi(near + (up === 0 ? 12 : up))
  if (way === 'down') return midi(near - (12 - up))
  return midi(up < 6 ? near + up : near + up - 12)
}

/**
 * The pitch a place on a staff means: by its letter (0 = C) and octave, spelled as the home scale of the chord there has
 * that letter, plainly where no chord sounds or the scale has none.
 */
export const pitchOnStaff = (letter: number, octave: number, at: number, timeline: Timeline): Pitch => {
  const place = soundingAt(timeline, at)?.place
  const inside = place ? place.chord.heard.filter((n, up) => n.letter === letter && has(place.home.inside, up)) : []
  return pitchOn(inside[0] ?? noteOn(letter, 0) ?? plainNote(pitchClass(0)), octave)
}

/** Writes words into a line, from its place on; says where a degree has no chord to count from. */
export const writeEntry = (entry: Entry, words: readonly EntryWord[], timeline: Timeline): Result<Entry, TextError> => {
  let { line, at, length, near } = entry
  for (const word of words) {
    const own = word.beats === null ? length : Math.round(word.beats * timeline.beat)
    if (word.kind === 'length') {
      length = own
      continue
    }
    if (word.kind === 'degree') {
      const chord = soundingAt(timeline, at)?.place?.chord
      if (!chord)
        return fail({ code: 'bad_entry', at: word.at, found: word.degree, expected: ['r: no chord sounds here'] })
      const pitch = pitchNear(pitchClass(chord.root.pc + degree(word.degree).semitones), near, word.way)
      if (pitch < LOWEST || pitch > HIGHEST)
        return fail({ code: 'bad_entry', at: word.at, found: word.degree, expected: ['a note that can be heard'] })
      line = insertNote(line, { at: ticks(at), for: ticks(own), pitch })
      near = pitch
    }
    at += own
  }
  return ok({ line, at, length, near })
}
