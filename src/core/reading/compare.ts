import { has, shared } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import type { NoteReading, Reading } from './read.ts'
import { listed } from './sentence.ts'

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

const whyOut = (n: NoteReading): string => {
  const name = `its ${n.degree}, ${n.heard.name},`
  if (n.rubs) return `${name} rubs against ${n.rubs.name}`
  if (n.denied) return `${name} is denied by the symbol`
  if (n.role === 'outside') return `${name} is outside`
  if (n.role === 'suspension') return `${name} may not rest`
  if (n.role === 'altered') return `${name} is altered`
  return `${name} is an extension`
}

const REASONS = 2

/** Which of two readings over one chord lies further out, by how much, and why: ASCII. */
export const furtherOut = (a: Reading, b: Reading): string => {
  const [out, near] = a.fade >= b.fade ? [a, b] : [b, a]
  const by = out.fade - near.fade
  if (by === 0) return `${a.overlay.name} and ${b.overlay.name} lie equally far out.`
  const own = out.notes.filter((n) => n.fade > 0 && !near.notes.some((m) => m.note.pc === n.note.pc))
  const worst = [...own].sort((x, y) => y.fade - x.fade).slice(0, REASONS)
  const less = near.notes.filter((n) => n.fade === 0).length / near.notes.length
  const more = out.notes.filter((n) => n.fade === 0).length / out.notes.length
  const why =
    worst.length > 0
      ? listed(worst.map(whyOut))
      : less > more
        ? `${near.overlay.name} has more chord tones among its notes`
        : 'its notes lie further out on the whole'
  return `${out.overlay.name} is further out than ${near.overlay.name} by ${by}: ${why}.`
}
