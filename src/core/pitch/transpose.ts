import { isHardRoot, type Note, noteAbove, plainNote } from './note.ts'

/** A spelled interval: letters and semitones upward (negative: downward). */
export interface Interval {
  readonly letters: number
  readonly semitones: number
}

const LETTERS_OF = [0, 1, 1, 2, 2, 3, 3, 4, 5, 5, 6, 6] as const

/** The usual interval of so many semitones, upward or downward. */
export const chordInterval = (semitones: number): Interval => {
  const letters = LETTERS_OF[Math.abs(semitones) % 12] ?? 0
  return { letters: semitones < 0 ? -letters : letters, semitones }
}

export const UNISON: Interval = { letters: 0, semitones: 0 }
export const reverse = (i: Interval): Interval => ({ letters: -i.letters, semitones: -i.semitones })

/** A root moved by an interval; a root with a double accidental takes its plain name. */
export const moveRoot = (note: Note, by: Interval): Note => {
  const moved = noteAbove(note, by.letters, by.semitones)
  return Math.abs(moved.alter) > 1 ? plainNote(moved.pc) : moved
}

/** A root as a transposing player reads it: never E sharp, B sharp, C flat or F flat. */
export const writtenRoot = (note: Note, by: Interval): Note => {
  const moved = moveRoot(note, by)
  return by.semitones !== 0 && isHardRoot(moved) ? plainNote(moved.pc) : moved
}

/** A note under a moved root keeps its degree: the letter distance to the root stays what it was. */
export const moveUnder = (note: Note, root: Note, newRoot: Note): Note =>
  noteAbove(newRoot, note.letter - root.letter, note.pc - root.pc)
