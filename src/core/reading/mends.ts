import { heardOver } from '../chord/chord.ts'
import { isNamed, namesOf } from '../material/naming.ts'
import type { Overlay } from '../material/overlay.ts'
import { type Note, spellOn } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { type Reading, readOver } from './read.ts'
import type { Weights } from './weights.ts'

/** One note moved by a semitone, and what the overlay becomes. */
export interface Mend {
  readonly from: Note
  readonly to: Note
  readonly becomes: Overlay
  readonly fade: number
}

/** The mended overlay's names, its own root first where it keeps it. */
const becomes = (set: PcSet, like: Overlay): Overlay | undefined => namesOf(set, like)[0]

/**
 * For an overlay with rubs or suspensions: every change of one note by a semitone that lowers its fade and gives a named
 * set, never onto a note it holds. Best first by fade, then onto a guide tone, then downward. Source: theory page, 5.
 */
export const mendsOf = (reading: Reading, weights: Weights): readonly Mend[] => {
  const { overlay, place } = reading
  if (!(reading.counts.suspension > 0 || reading.notes.some((n) => n.rub !== null))) return []
  const mends: (Mend & { readonly guide: boolean; readonly down: boolean })[] = []
  for (const { note } of reading.notes)
    for (const by of [-1, 1]) {
      const pc = pitchClass(note.pc + by)
      const set = ((overlay.set & ~(1 << note.pc)) | (1 << pc)) as PcSet
      if (has(overlay.set, pc) || !isNamed(set)) continue
      const mended = becomes(set, overlay)
      if (!mended) continue
      const { fade, notes } = readOver(mended, place, weights)
      if (fade >= reading.fade) continue
      const to = mended.notes.find((n) => n.pc === pc) ?? spellOn(note.letter, pc) ?? heardOver(place.chord, pc)
      const guide = notes.some((n) => n.note.pc === pc && n.guide)
      mends.push({ from: note, to, becomes: mended, fade, guide, down: by < 0 })
    }
  return mends
    .sort((a, b) => a.fade - b.fade || Number(b.guide) - Number(a.guide) || Number(b.down) - Number(a.down))
    .map(({ from, to, becomes: name, fade }) => ({ from, to, becomes: name, fade }))
}
