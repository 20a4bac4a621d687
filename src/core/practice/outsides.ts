import { materialNamed } from '../material/material.ts'
import { type Overlay, placeOn, slipOverlay } from '../material/overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeOverlay } from '../reading/home.ts'
import type { Place } from '../reading/role.ts'

const MAJOR = materialNamed('')
const FOURTHS = materialNamed('quartal 3')

/** What can lie over the bars outside, told by the chord it stands over. */
export const OUTSIDES: Readonly<Record<string, (place: Place) => Overlay>> = {
  'a half step up': ({ home }) => slipOverlay(homeOverlay(home.first), 1, []),
  'a half step down': ({ home }) => slipOverlay(homeOverlay(home.first), -1, []),
  'a triad a major third up': ({ chord }) => placeOn(plainNote(pitchClass(chord.root.pc + 4)), MAJOR),
  'a triad a major third down': ({ chord }) => placeOn(plainNote(pitchClass(chord.root.pc - 4)), MAJOR),
  'fourths a half step up': ({ chord }) => placeOn(plainNote(pitchClass(chord.root.pc + 1)), FOURTHS),
}
export const OUTSIDE_NAMES: readonly string[] = Object.keys(OUTSIDES)
/** What is outside and comes from elsewhere. */
export const OUTSIDE_SOURCES = ['the route in hand', 'another chart’s changes'] as const
