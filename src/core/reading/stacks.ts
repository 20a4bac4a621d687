import { namesOf } from '../material/naming.ts'
import { notesOverlay, type Overlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { type NoteReading, readOver } from './read.ts'
import type { Place } from './role.ts'
import type { Weights } from './weights.ts'

export const STACKS = { thirds: 2, triads: 3, sevenths: 4 } as const
export type StackKind = keyof typeof STACKS

/** Notes stacked in thirds on one degree of a scale, read over a chord. */
export interface Stack {
  readonly on: Note
  readonly degree: string
  /** What they make, where the catalogue names it on that note. */
  readonly makes: Overlay | null
  readonly notes: readonly NoteReading[]
}

/**
 * A scale's own thirds, triads or sevenths on each of its degrees, with their roles over the chord: extensions or
 * suspensions at a glance. Every other note of the scale is taken, as it is written.
 */
export const stacksOf = (scale: Overlay, kind: StackKind, place: Place, weights: Weights): readonly Stack[] =>
  scale.notes.map((on, i) => {
    const rest = Array.from(
      { length: STACKS[kind] - 1 },
      (_, n) => scale.notes[(i + 2 * (n + 1)) % scale.notes.length] ?? on,
    )
    const stack = notesOverlay([on, ...rest])
    const reading = readOver(stack, place, weights)
    const makes = kind === 'thirds' ? null : (namesOf(stack.set, stack).find((o) => o.root === on) ?? null)
    return { on, degree: reading.notes[0]?.degree ?? '1', makes, notes: reading.notes }
  })
