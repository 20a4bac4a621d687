import { midi, type NoteReading, type Overlay, type Pitch, upwards } from '../../core/index.ts'
import type { StaffClef } from './notation.ts'

/** Where an overlay begins on a staff, and the lowest C of the keyboard that goes with it. */
export const CLEF_LOW: Readonly<Record<StaffClef, number>> = { treble: 58, alto: 50, bass: 40 }
export const CLEF_C: Readonly<Record<StaffClef, number>> = { treble: 60, alto: 48, bass: 36 }

/** An overlay upward by the scale: from its root, each note above the last in the nearest octave. */
export const scaleUp = (overlay: Overlay, clef: StaffClef): readonly Pitch[] => {
  const up = [...overlay.notes].sort(
    (a, b) => ((a.pc - overlay.root.pc + 12) % 12) - ((b.pc - overlay.root.pc + 12) % 12),
  )
  return upwards(up, midi(CLEF_LOW[clef]))
}

export const readingOf = (notes: readonly NoteReading[], p: Pitch): NoteReading | undefined =>
  notes.find((n) => n.note.pc === p.note.pc)
