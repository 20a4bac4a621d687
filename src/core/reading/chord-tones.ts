import { heardOver } from '../chord/chord.ts'
import { namesOf } from '../material/naming.ts'
import { notesOverlay, type Overlay, placeOn } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { homeOverlay } from './home.ts'
import { type Reading, readOver } from './read.ts'
import type { Place } from './role.ts'
import type { Weights } from './weights.ts'

/** The home scale heard from one of the chord's tones. */
export interface ToneMode {
  readonly from: Note
  readonly degree: string
  /** Its name from that tone, where the catalogue has one. */
  readonly mode: Overlay | null
}

/** The same notes under a name on that root, spelled as the chord has it. */
const onRoot = (overlay: Overlay, root: Note): Overlay | null => {
  const material = namesOf(overlay.set, overlay).find((o) => o.root.pc === root.pc)?.material
  return material ? placeOn(root, material) : null
}

/** For each of the chord's own tones, lowest first, the mode of the home scale that starts there. */
export const chordToneModes = ({ chord, home }: Place): readonly ToneMode[] => {
  const scale = homeOverlay(home.first)
  return chord.quality.own.map((d) => {
    const from = heardOver(chord, chord.root.pc + d.semitones)
    return { from, degree: d.name, mode: onRoot(scale, from) }
  })
}

/**
 * The arpeggio from the third that gives the ninth chord without its root: 3 5 7 9, the 9 as the home scale has it. Null
 * on a chord without a third or a seventh.
 */
export const rootlessNinth = (place: Place, weights: Weights): Reading | null => {
  const { chord, home } = place
  const [third, ...rest] = chord.quality.own.filter((d) => d.name !== '1')
  if (!third || rest.length < 2) return null
  const nine = [2, 1, 3].find((up) => has(home.inside, up))
  if (nine === undefined) return null
  const at = (up: number): Note => heardOver(chord, chord.root.pc + up)
  const notes = notesOverlay([at(third.semitones), ...rest.map((d) => at(d.semitones)), at(nine)])
  return readOver(onRoot(notes, notes.root) ?? notes, place, weights)
}
