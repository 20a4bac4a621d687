import type { Chord } from '../chord/chord.ts'
import type { Standing } from './role.ts'
import { BLUE_MOST, MINOR_SEVEN, type Weights } from './weights.ts'

const ALTERED_NAME = { 1: 'b9', 3: '#9', 6: '#11', 8: 'b13' } as const

const extensionFade = ({ up, inHome }: Standing, chord: Chord, w: Weights): number => {
  if (up === 6 && (chord.family === 'major' || inHome)) return w.sharpEleven
  const base = up === 2 ? w.ninth : w.extension
  return inHome ? base : base + w.awayFromHome
}

const outsideFade = ({ denied, rub, minorSeven }: Standing, w: Weights): number =>
  minorSeven
    ? MINOR_SEVEN[minorSeven]
    : Math.max(w.outside, denied ? w.denied : 0, rub === 'guide' ? w.rubGuide : rub === 'root' ? w.rubRoot : 0)

/** How far out one note is, 0..100; a blue note never far. Source: theory page, section 5. */
export const noteFade = (n: Standing, chord: Chord, w: Weights): number => {
  const fade = fadeByRole(n, chord, w)
  return n.blue ? Math.min(fade, BLUE_MOST) : fade
}

const fadeByRole = (n: Standing, chord: Chord, w: Weights): number => {
  switch (n.role) {
    case 'chord':
      return w.chord
    case 'extension':
      return extensionFade(n, chord, w)
    case 'altered':
      return w.altered[ALTERED_NAME[n.up as keyof typeof ALTERED_NAME]] - (n.inHome || n.stated ? w.alteredHeld : 0)
    case 'suspension':
      return n.inHome ? w.suspensionHome : w.suspensionAway
    case 'outside':
      return outsideFade(n, w)
  }
}

/** An overlay's fade: 0.7 of the mean of its notes and 0.3 of the worst, rounded once. `worst` leaves passing notes out. */
export const overlayFade = (sum: number, count: number, worst: number, w: Weights): number =>
  Math.round((w.meanShare * sum + (100 - w.meanShare) * worst * count) / (100 * count))
