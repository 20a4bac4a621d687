import type { Key } from '../core/index.ts'

const MAJOR = [
  'Fb',
  'Cb',
  'Gb',
  'Db',
  'Ab',
  'Eb',
  'Bb',
  'F',
  'C',
  'G',
  'D',
  'A',
  'E',
  'B',
  'F#',
  'C#',
  'G#',
  'D#',
  'A#',
]
const C = MAJOR.indexOf('C')

/** How many sharps a key signature has, flats below 0; null for a key that has none. */
export const fifthsOf = ({ tonic, mode }: Key): number | null => {
  const at = MAJOR.indexOf(tonic.name)
  return at < 0 ? null : at - C - (mode === 'minor' ? 3 : 0)
}
