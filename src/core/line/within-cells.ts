import type { Note } from '../pitch/note.ts'
import { spellOn } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Cell } from './cells.ts'
import { type HeardNote, stepTo } from './heard.ts'
import type { Melodic } from './melodic.ts'

const holdsNote = ({ overlay }: Cell, n: HeardNote): boolean =>
  overlay !== null && ((overlay.set >> pitchClass(n.pitch)) & 1) === 1

/** What leads by a half step into a note of its cell, whatever that note is to the chord: an approach as well. */
export const leadingInCells = (
  notes: readonly HeardNote[],
  jobs: readonly (Melodic | null)[],
  cells: readonly Cell[],
): readonly (Melodic | null)[] => {
  const all = [...jobs]
  for (const cell of cells) {
    if (!cell.overlay || cell.how === 'home') continue
    for (let i = cell.from; i < cell.to; i++) {
      const [n, next] = [notes[i] as HeardNote, notes[i + 1] as HeardNote]
      if (all[i] || holdsNote(cell, n) || !holdsNote(cell, next) || Math.abs(stepTo(n, next)) !== 1) continue
      all[i] = { kind: `chromatic approach from ${n.pitch > next.pitch ? 'above' : 'below'}`, of: i + 1 }
    }
  }
  return all
}

const isPlain = ({ alter }: Note): boolean => Math.abs(alter) < 2

/** A half step spelled on the letter beside its goal; undefined where that takes a double accidental. */
const besideGoal = (n: HeardNote, next: HeardNote, goal: Note): Note | undefined => {
  const note = spellOn(goal.letter + (n.pitch > next.pitch ? 1 : -1), pitchClass(n.pitch))
  return note && isPlain(note) ? note : undefined
}

/**
 * The notes with their cell's spelling, what leads into them spelled beside its goal; a spelling that a source gave
 * stays. Source: theory page, section 1.
 */
export const spelledByCells = (notes: readonly HeardNote[], cells: readonly Cell[]): readonly HeardNote[] => {
  const names = notes.map((n) => n.name)
  for (const cell of cells) {
    if (!cell.overlay || cell.how === 'home' || cell.how === 'chord') continue
    for (let i = cell.from; i <= cell.to; i++) {
      const own = cell.overlay.notes.find((x) => x.pc === pitchClass((notes[i] as HeardNote).pitch))
      // Over the chord it is named plainly, where its cell would take a double accidental.
      if (own && (isPlain(own) || !isPlain(names[i] as Note))) names[i] = own
    }
    for (let i = cell.from; i < cell.to; i++) {
      const [n, next] = [notes[i] as HeardNote, notes[i + 1] as HeardNote]
      if (holdsNote(cell, n) || Math.abs(stepTo(n, next)) !== 1) continue
      names[i] = besideGoal(n, next, names[i + 1] as Note) ?? (names[i] as Note)
    }
  }
  return notes.map((n, i) => (n.note || names[i] === n.name ? n : { ...n, name: names[i] as Note }))
}
