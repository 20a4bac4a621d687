import { has, shared } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import type { NoteReading, Reading } from './read.ts'

/** A few overlays side by side: what all hold, and what each alone holds. */
export interface Comparison {
  readonly shared: PcSet
  readonly own: readonly PcSet[]
}

export const compareSets = (sets: readonly PcSet[]): Comparison => {
  const all = sets.reduce<number>((common, s) => common & s, 0xfff)
  const own = sets.map((s, i) => sets.reduce<number>((left, other, j) => (i === j ? left : left & ~other), s))
  return { shared: (sets.length > 0 ? all : 0) as PcSet, own: own as PcSet[] }
}

/** A reading's notes that lie in a set. */
export const notesIn = (reading: Reading, set: PcSet): readonly NoteReading[] =>
  reading.notes.filter((n) => has(set, n.note.pc))

/** Whether a pair's note belongs to its first triad, its second, or both; null where it is no pair. */
export const triadOf = (reading: Reading, n: NoteReading): 'first' | 'second' | 'both' | null => {
  const { groups } = reading.overlay
  if (!groups) return null
  const [first, second] = groups
  if (has(shared(first.set, second.set), n.note.pc)) return 'both'
  return has(first.set, n.note.pc) ? 'first' : 'second'
}
