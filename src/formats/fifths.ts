import { type Key, type Note, readNote } from '../core/index.ts'

const FIFTHS = 'Fb Cb Gb Db Ab Eb Bb F C G D A E B F# C# G# D# A# E# B#'.split(' ').map((name): Note => {
  const read = readNote(name, 0)
  if (!read.ok) throw new Error(`not a note: ${name}`)
  return read.value.note
})
const C = 8
/** From the major tonic of a signature up to its minor one. */
const TO_MINOR = 3

/** How many sharps a key signature has, flats below 0; null for a key that has none. */
export const fifthsOf = ({ tonic, mode }: Key): number | null => {
  const at = FIFTHS.findIndex((n) => n.name === tonic.name)
  return at < 0 || at > C + 10 ? null : at - C - (mode === 'minor' ? TO_MINOR : 0)
}

/** The key of so many sharps, flats below 0; null for more than there are. */
export const keyOfFifths = (fifths: number, mode: Key['mode']): Key | null => {
  const tonic = FIFTHS[C + fifths + (mode === 'minor' ? TO_MINOR : 0)]
  return tonic ? { tonic, mode } : null
}

/** The seven notes of a signature. */
export const scaleOfFifths = (fifths: number): readonly Note[] =>
  FIFTHS.slice(Math.max(0, C - 1 + fifths), Math.max(0, C + 6 + fifths))
