import type { Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import type { Overlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { placeOf } from '../reading/read.ts'
import type { Place } from '../reading/role.ts'
import type { School } from '../reading/school.ts'

/** For tests: chords, overlays and places from words that must read. */
export const chordNamed = (symbol: string): Chord => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}

export const overlayNamed = (name: string): Overlay => {
  const read = readOverlay(name)
  if (!read.ok) throw new Error(name)
  return read.value
}

export const placeNamed = (chord: string, next: string | null = null, school?: School): Place =>
  placeOf(chordNamed(chord), next === null ? null : chordNamed(next), school)
