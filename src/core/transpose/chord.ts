import { buildChord, type Chord, type Harmony } from '../chord/chord.ts'
import { buildPolychord, readChord } from '../chord/parse.ts'
import { printSymbol } from '../chord/print.ts'
import { notesOverlay, type Overlay, pairOf, placeOn } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { type Interval, moveUnder, writtenRoot } from '../pitch/transpose.ts'

/** A chord moved by an interval, its bass and upper chord with it. Roots take plain names where they must. */
export const transposeChord = (chord: Chord, by: Interval): Chord => {
  if (chord.slash) {
    const written = readChord(chord.symbol)
    if (!written.ok) throw new Error(`a printed chord does not read: ${chord.symbol}`)
    return transposeChord(written.value, by)
  }
  const poly = /^\((.+)\|(.+)\)$/.exec(chord.symbol)
  if (poly) {
    const [upper, lower] = [poly[1], poly[2]].map((s) => readChord(s ?? ''))
    if (!upper?.ok || !lower?.ok) throw new Error(`a printed polychord does not read: ${chord.symbol}`)
    const low = transposeChord(lower.value, by)
    const high = transposeChord(upper.value, by)
    return buildPolychord(high, low)
  }
  const root = writtenRoot(chord.root, by)
  const bass = chord.bass === chord.root ? root : moveUnder(chord.bass, chord.root, root)
  return buildChord(root, bass, chord.quality, printSymbol(root, bass, chord.quality.recipe))
}

export const transposeHarmony = (harmony: Harmony, by: Interval): Harmony =>
  harmony.kind === 'chord' ? transposeChord(harmony, by) : harmony

/** An overlay moved by an interval, spelled anew from its moved root. */
export const transposeOverlay = (overlay: Overlay, by: Interval): Overlay => {
  const root = writtenRoot(overlay.root, by)
  if (overlay.groups) return pairOf(transposeOverlay(overlay.groups[0], by), transposeOverlay(overlay.groups[1], by))
  if (overlay.material) return placeOn(root, overlay.material)
  const [first = root, ...rest] = overlay.notes.map((n): Note => moveUnder(n, overlay.root, root))
  return notesOverlay([first, ...rest])
}
