import { type Note, noteOn } from '../pitch/note.ts'
import { notesOverlay, type Overlay, pairOf, placeOn } from './overlay.ts'

/** How roots that nobody typed are named on black keys. */
export const DIRECTIONS = ['as usual', 'flats', 'sharps'] as const
export type Direction = (typeof DIRECTIONS)[number]

const turnedNote = (note: Note, direction: Direction): Note => {
  if (direction === 'flats' && note.alter === 1) return noteOn(note.letter + 1, note.letter === 6 ? 0 : -1) ?? note
  if (direction === 'sharps' && note.alter === -1) return noteOn(note.letter - 1, 1) ?? note
  return note
}

const sameKey = (note: Note, direction: Direction): Note => {
  const turned = turnedNote(note, direction)
  return turned.pc === note.pc ? turned : note
}

/** An overlay with its roots on black keys named the way the player wants; all else follows from its formula. */
export const namedTowards = (overlay: Overlay, direction: Direction): Overlay => {
  if (direction === 'as usual') return overlay
  const { groups, material, root, notes } = overlay
  if (groups) return pairOf(namedTowards(groups[0], direction), namedTowards(groups[1], direction))
  if (material) return placeOn(sameKey(root, direction), material)
  const [first = root, ...rest] = notes.map((n) => sameKey(n, direction))
  return notesOverlay([first, ...rest])
}
