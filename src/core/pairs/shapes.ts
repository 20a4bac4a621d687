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

/** A pair and how many triads of it are played before the next. */
export interface PairRun {
  readonly groups: readonly [Overlay, Overlay]
  readonly count: number
}

const nearestTo = (before: Voiced, all: readonly Voiced[], way: PathKind): Voiced | undefined =>
  all.filter((v) => allowed(way, before, v)).sort((a, b) => motionOf(before, a) - motionOf(before, b))[0]

/**
 * Pairs one after another, as chords go on: the two triads of each in turn, every triad in the inversion nearest to the one
 * before, also from one pair into the next, which begins with whichever of its triads is nearer. Staying close, climbing or
 * falling, and turning round at the ends of the range. Gives the triads of each run; what does not fit the range ends it.
 */
export const pairPath = (
  runs: readonly PairRun[],
  kind: PathKind,
  low: Midi,
  high: Midi,
): readonly (readonly Voiced[])[] => {
  let before: Voiced | undefined
  let going = kind
  const next = (all: readonly Voiced[]): Voiced | undefined => {
    if (!before) return kind === 'fall' ? all.at(-1) : all.find((v) => v.inversion === 0)
    const found = nearestTo(before, all, going)
    if (found) return found
    going = going === 'climb' ? 'fall' : 'climb'
    return nearestTo(before, all, going)
  }
  return runs.map(({ groups, count }) => {
    const all = groups.map((g) => standings(g, low, high))
    const from = before
    const apart = (i: number): number => {
      const found = from && nearestTo(from, all[i] ?? [], 'stay close')
      return from && found ? motionOf(from, found) : i
    }
    const first = apart(1) < apart(0) ? 1 : 0
    const run: Voiced[] = []
    for (let i = 0; i < count; i++) {
      const voiced = next(all[(first + i) % 2] ?? [])
      if (!voiced) break
      run.push(voiced)
      before = voiced
    }
    return run
  })
}

/** One pair by itself: `count` triads. */
export const inversionPath = (
  groups: readonly [Overlay, Overlay],
  count: number,
  kind: PathKind,
  low: Midi,
  high: Midi,
): readonly Voiced[] => pairPath([{ groups, count }], kind, low, high)[0] ?? []
