import type { Note } from '../pitch/note.ts'
import type { Midi, Ticks } from '../pitch/units.ts'
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

export const endOf = (n: LineNote): number => n.at + n.for

/** Of notes that begin together only the highest is kept: a line is one voice. Shorter than nothing is left out. */
export const lineOf = (notes: readonly LineNote[]): Line => {
  const sorted = notes.filter((n) => n.for > 0).sort((a, b) => a.at - b.at || b.pitch - a.pitch)
  return sorted.filter((n, i) => i === 0 || n.at > (sorted[i - 1]?.at ?? -1))
}

/** The place of the note that sounds at a moment, or of the last before it; 0 where none is. Its notes are in order. */
export const noteAround = (line: readonly { readonly at: number }[], at: number): number =>
  lastBegun(line.length, (i) => line[i]?.at ?? 0, at)
