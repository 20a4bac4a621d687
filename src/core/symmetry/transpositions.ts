import { generatedRoot, type Overlay, placeOn } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { holds, periodOf, rotate, setOf } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'

/** A material's different transpositions, its own first, upward by half steps. Empty for a handful of notes. */
export const transpositionsOf = (overlay: Overlay): readonly Overlay[] => {
  const { material, root, notes, set } = overlay
  if (!material) return []
  return Array.from({ length: periodOf(set) }, (_, up) =>
    up === 0 ? overlay : placeOn(generatedRoot(pitchClass(root.pc + up), notes, material), material),
  )
}

/** The roots on which the same notes come back under the same name: where a symmetric scale repeats. */
export const repeatsOf = (overlay: Overlay): readonly Overlay[] => {
  const { material, notes, set } = overlay
  if (!material) return []
  return notes
    .filter((n) => rotate(material.set, n.pc) === set)
    .map((n) => placeOn(generatedRoot(n.pc, notes, material), material))
}

const DIMINISHED = setOf([0, 3, 6, 9])

/** Whether a scale holds the diminished seventh on a note, and so one that stands for four dominants. */
export const holdsDiminished = ({ set }: Overlay, on: Note): boolean => holds(set, rotate(DIMINISHED, on.pc))
