import { type Note, plainNote } from './note.ts'
import { type Midi, midi, pitchClass } from './units.ts'

/** A spelled note in its octave; `pitch` is its MIDI number (C4 = 60) and `octave` goes by its letter. */
export interface Pitch {
  readonly note: Note
  readonly octave: number
  readonly pitch: Midi
}

/** A note in an octave counted by its letter: B sharp 3 sounds as C4. */
export const pitchOn = (note: Note, octave: number): Pitch => {
  const natural = note.pc - note.alter
  const folded = ((natural % 12) + 12) % 12
  return { note, octave, pitch: midi(12 * (octave + 1) + folded + note.alter) }
}

/** The lowest placing of a note at or above a pitch. */
export const atOrAbove = (note: Note, low: number): Pitch => {
  let octave = Math.floor(low / 12) - 2
  let placed = pitchOn(note, octave)
  while (placed.pitch < low) placed = pitchOn(note, ++octave)
  return placed
}

/** Notes upward from the first, each above the last. */
export const upwards = (notes: readonly Note[], low: Midi): readonly Pitch[] => {
  let least: number = low
  return notes.map((note) => {
    const placed = atOrAbove(note, least)
    least = placed.pitch + 1
    return placed
  })
}

/** A pitch in its octave by the note's letter; spelled plainly where the note is another pitch. */
export const pitchNamed = (note: Note, pitch: Midi): Pitch => {
  const named = pitchClass(pitch) === note.pc ? note : plainNote(pitchClass(pitch))
  const natural = pitchClass(named.pc - named.alter)
  return { note: named, octave: Math.round((pitch - named.alter - natural) / 12) - 1, pitch }
}
