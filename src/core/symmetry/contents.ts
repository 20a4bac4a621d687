import { MATERIALS } from '../material/material.ts'
import { generatedRoot, type Overlay, placeOn } from '../material/overlay.ts'
import { holds, periodOf, rotate } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'

/** What a material is by itself. */
export interface Contents {
  /** The transposition, 1..12 semitones, that gives it back. */
  readonly periodSemitones: number
  /** How many different transpositions there are: the same number. */
  readonly distinct: number
  readonly triads: readonly Overlay[]
  readonly sevenths: readonly Overlay[]
}

const heldIn = (overlay: Overlay, family: 'triad' | 'seventh'): readonly Overlay[] =>
  overlay.notes.flatMap((note) =>
    MATERIALS.filter((m) => m.family === family && holds(overlay.set, rotate(m.set, note.pc))).map((m) =>
      placeOn(generatedRoot(pitchClass(note.pc), overlay.notes, m), m),
    ),
  )

/** A material's repeats, and the triads and seventh arpeggios on its own notes that it holds. */
export const contentsOf = (overlay: Overlay): Contents => {
  const period = periodOf(overlay.set)
  return {
    periodSemitones: period,
    distinct: period,
    triads: heldIn(overlay, 'triad'),
    sevenths: heldIn(overlay, 'seventh'),
  }
}
