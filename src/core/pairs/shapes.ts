import type { Overlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { type Pitch, upwards } from '../pitch/register.ts'
import { type Midi, midi } from '../pitch/units.ts'

/** The six orders of three notes, counted from the triad's root. Source: theory page, section 10. */
export const ORDERS = ['1 3 5', '1 5 3', '3 1 5', '3 5 1', '5 1 3', '5 3 1'] as const
const PLACES: Readonly<Record<string, number>> = { '1': 0, '3': 1, '5': 2 }

/** A triad's notes in one of the six orders. */
export const inOrderOf = (notes: readonly Note[], order: (typeof ORDERS)[number]): readonly Note[] =>
  order.split(' ').flatMap((place) => notes[PLACES[place] ?? 0] ?? [])

export const INVERSIONS = ['root position', 'first inversion', 'second inversion'] as const

/** A triad standing somewhere: lowest note first. */
export interface Voiced {
  readonly triad: Overlay
  readonly inversion: number
  readonly pitches: readonly Pitch[]
}

/** A triad in one inversion, its lowest note the first at or above `low`. */
export const voicedFrom = (triad: Overlay, inversion: number, low: Midi): Voiced => {
  const turned = triad.notes.map((_, i) => triad.notes[(i + inversion) % triad.notes.length] as Note)
  return { triad, inversion, pitches: upwards(turned, low) }
}

/** Every standing of a triad whose notes lie within a range, lowest first. */
const standings = (triad: Overlay, low: Midi, high: Midi): readonly Voiced[] => {
  const all: Voiced[] = []
  for (let inversion = 0; inversion < 3; inversion++)
    for (let from: number = low; from <= high; ) {
      const voiced = voicedFrom(triad, inversion, midi(from))
      const [first, , last] = voiced.pitches
      if (!first || !last || last.pitch > high) break
      all.push(voiced)
      from = first.pitch + 1
    }
  return all.sort((a, b) => (a.pitches[0]?.pitch ?? 0) - (b.pitches[0]?.pitch ?? 0))
}

/** How far three voices move, lowest to lowest and so on, in semitones. */
export const motionOf = (a: Voiced, b: Voiced): number =>
  a.pitches.reduce((sum, p, i) => sum + Math.abs(p.pitch - (b.pitches[i]?.pitch ?? p.pitch)), 0)

export const PATHS = ['stay close', 'climb', 'fall'] as const
export type PathKind = (typeof PATHS)[number]

const bottomOf = (v: Voiced): number => v.pitches[0]?.pitch ?? 0

const allowed = (kind: PathKind, from: Voiced, to: Voiced): boolean =>
  kind === 'stay close' || (kind === 'climb' ? bottomOf(to) > bottomOf(from) : bottomOf(to) < bottomOf(from))

/**
 * The two triads in turn, each in the inversion nearest to the one before: staying close, climbing or falling, and turning
 * round at the ends of the range. `count` triads.
 */
export const inversionPath = (
  [first, second]: readonly [Overlay, Overlay],
  count: number,
  kind: PathKind,
  low: Midi,
  high: Midi,
): readonly Voiced[] => {
  const all = [standings(first, low, high), standings(second, low, high)] as const
  const begin = kind === 'fall' ? all[0].at(-1) : all[0].find((v) => v.inversion === 0)
  if (!begin) return []
  const path = [begin]
  let going = kind
  for (let i = 1; i < count; i++) {
    const before = path[i - 1] as Voiced
    const near = (way: PathKind): Voiced | undefined =>
      (all[i % 2] ?? [])
        .filter((v) => allowed(way, before, v))
        .sort((a, b) => motionOf(before, a) - motionOf(before, b))[0]
    let next = near(going)
    if (!next) {
      going = going === 'climb' ? 'fall' : 'climb'
      next = near(going)
    }
    if (!next) return path
    path.push(next)
  }
  return path
}
