import { type Chord, isMinorTarget } from '../chord/chord.ts'
import type { Overlay } from '../material/overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { type Interval, UNISON } from '../pitch/transpose.ts'
import { pitchClass } from '../pitch/units.ts'
import { transposeChord, transposeOverlay } from '../transpose/chord.ts'

/** An overlay and its chords in one of the twelve keys. */
export interface InKey {
  readonly overlay: Overlay
  readonly chord: Chord
  readonly next: Chord | null
}

/** The interval that brings a chord to the usual spelling of a root. */
const upTo = (chord: Chord, semitones: number): Interval => {
  if (semitones === 0) return UNISON
  const root = plainNote(pitchClass(chord.root.pc + semitones), isMinorTarget(chord))
  return { letters: (root.letter - chord.root.letter + 7) % 7, semitones }
}

/** The same idea in all twelve keys, its own first, upward by half steps; every chord on a root of usual spelling. */
export const inTwelveKeys = (overlay: Overlay, chord: Chord, next: Chord | null): readonly InKey[] =>
  Array.from({ length: 12 }, (_, semitones) => {
    const by = upTo(chord, semitones)
    return {
      overlay: transposeOverlay(overlay, by),
      chord: transposeChord(chord, by),
      next: next && transposeChord(next, by),
    }
  })
