import { MATERIALS, type Material } from '../material/material.ts'
import { generatedRoot, type Overlay, placeOn } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has, holds, periodOf, rotate } from '../pitch/pcset.ts'

/** What a material is by itself. */
export interface Contents {
  /** The transposition, 1..12 semitones, that gives it back. */
  readonly periodSemitones: number
  /** How many different transpositions there are: the same number. */
  readonly distinct: number
  readonly triads: readonly Overlay[]
  readonly sevenths: readonly Overlay[]
  /** An upper triad over a bass note or a lower chord, all of it held. */
  readonly polychords: readonly Polychord[]
}

export interface Polychord {
  readonly upper: Overlay
  readonly lower: Note | Overlay
}

/** Textbooks count 1 3 b5 as a fragment of the dominant, not as a triad a scale holds. */
const COUNTED = MATERIALS.filter((m) => m.name !== 'major b5 triad')

const heldIn = (overlay: Overlay, family: Material['family']): readonly Overlay[] =>
  overlay.notes.flatMap((note) =>
    COUNTED.filter((m) => m.family === family && holds(overlay.set, rotate(m.set, note.pc))).map((m) =>
      placeOn(generatedRoot(note.pc, overlay.notes, m), m),
    ),
  )

const UPPER = ['', 'm', '+']
const LOWER = ['maj7', '7', 'm7', 'mMaj7', 'm7b5', 'dim7'].map((n) => `${n} arpeggio`)

/** Consonant and augmented triads over each bass note they lack, and over the usual seventh chords on such a note. */
const polychordsOf = (
  overlay: Overlay,
  triads: readonly Overlay[],
  sevenths: readonly Overlay[],
): readonly Polychord[] =>
  triads
    .filter((t) => UPPER.includes(t.material?.name ?? '?'))
    .flatMap((upper) => {
      const basses = overlay.notes.filter((n) => !has(upper.set, n.pc))
      const lower = sevenths.filter(
        (s) => LOWER.includes(s.material?.name ?? '') && basses.some((b) => b.pc === s.root.pc),
      )
      return [...basses, ...lower].map((l) => ({ upper, lower: l }))
    })

/** A material's repeats, and the triads, seventh arpeggios and polychords on its own notes that it holds. */
export const contentsOf = (overlay: Overlay): Contents => {
  const period = periodOf(overlay.set)
  const triads = heldIn(overlay, 'triad')
  const sevenths = heldIn(overlay, 'seventh')
  return {
    periodSemitones: period,
    distinct: period,
    triads,
    sevenths,
    polychords: polychordsOf(overlay, triads, sevenths),
  }
}
