import { type Chord, degreeOver, tonesOf } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'

/** A dominant a diminished seventh stands for, and what the diminished chord's root is in it. */
export interface StoodFor {
  readonly dominant: Chord
  readonly bassDegree: string
}

/**
 * The dominants behind a diminished seventh: it holds the b9, 3, 5 and b7 of each, so their roots lie a semitone below
 * its notes. Null for any other chord.
 */
export const dominantsBehind = (chord: Chord): readonly StoodFor[] | null => {
  if (chord.family !== 'diminished' || chord.quality.recipe.seventh !== 'bb7') return null
  return tonesOf(chord)
    .filter((t) => !t.stated)
    .flatMap((t) => {
      const read = readChord(`${plainNote(pitchClass(t.note.pc - 1)).name}7b9`)
      return read.ok ? [{ dominant: read.value, bassDegree: degreeOver(read.value, chord.root.pc) }] : []
    })
}
