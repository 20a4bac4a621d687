import { type Note, noteAbove, readNote } from '../pitch/note.ts'
import type { Interval } from '../pitch/transpose.ts'
import { type Midi, midi, pitchClass, type Ticks } from '../pitch/units.ts'
import { lastBegun } from '../time/last-begun.ts'

/** One note of a line: onset and duration in ticks from the start of the chart, and its pitch. */
export interface LineNote {
  readonly at: Ticks
  readonly for: Ticks
  readonly pitch: Midi
  /** Its spelling where a source gave one. */
  readonly note?: Note | undefined
}

/** Notes in the order of their onsets, one at a time. */
export type Line = readonly LineNote[]

/** The spelling a name gives a MIDI number: nothing where it names another note. */
export const spelledAs = (name: string | undefined, pitch: number): Pick<LineNote, 'note'> => {
  const read = name === undefined ? null : readNote(name, 0)
  const isIt = read?.ok && read.value.end === name?.length && read.value.note.pc === pitchClass(pitch)
  return isIt ? { note: read.value.note } : {}
}

/** A line in plain values, each spelling by its name: what `spelledAs` reads. */
export const namedNotes = (line: Line) =>
  line.map(({ at, for: length, pitch, note }) => ({
    ...{ at, for: length, pitch },
    ...(note ? { name: note.name } : {}),
  }))

/** A note moved by an interval; its spelling goes along. */
export const movedNote = ({ note, ...n }: LineNote, by: Interval): LineNote => ({
  ...{ ...n, pitch: midi(n.pitch + by.semitones) },
  ...(note ? { note: noteAbove(note, by.letters, by.semitones) } : {}),
})

export const endOf = (n: LineNote): number => n.at + n.for

/** Of notes that begin together only the highest is kept: a line is one voice. Shorter than nothing is left out. */
export const lineOf = (notes: readonly LineNote[]): Line => {
  const sorted = notes.filter((n) => n.for > 0).sort((a, b) => a.at - b.at || b.pitch - a.pitch)
  return sorted.filter((n, i) => i === 0 || n.at > (sorted[i - 1]?.at ?? -1))
}

/** The place of the note that sounds at a moment, or of the last before it; 0 where none is. Its notes are in order. */
export const noteAround = (line: readonly { readonly at: number }[], at: number): number =>
  lastBegun(line.length, (i) => line[i]?.at ?? 0, at)
