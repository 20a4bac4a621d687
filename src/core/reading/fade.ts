import type { Chord } from '../chord/chord.ts'
import { has } from '../pitch/pcset.ts'
import type { Judgement } from './role.ts'
import type { Weights } from './weights.ts'

const ALTERED_NAME = { 1: 'b9', 3: '#9', 6: '#11', 8: 'b13' } as const

const extensionFade = (j: Judgement, chord: Chord, w: Weights): number => {
  if (j.up === 6 && (chord.family === 'major' || j.inHome)) return w.sharpEleven
  const base = j.up === 2 ? w.ninth : w.extension
  return j.inHome ? base : base + w.awayFromHome
}

const alteredFade = (j: Judgement, chord: Chord, w: Weights): number => {
  const base = w.altered[ALTERED_NAME[j.up as keyof typeof ALTERED_NAME]]
  return j.inHome || has(chord.statedSet, j.up) ? base - w.alteredHeld : base
}

/** How far out one note is, 0..100. Source: theory page, section 5. */
export const noteFade = (j: Judgement, chord: Chord, w: Weights): number => {
  switch (j.role) {
    case 'chord':
      return w.chord
    case 'extension':
      return extensionFade(j, chord, w)
    case 'altered':
      return alteredFade(j, chord, w)
    case 'suspension':
      return j.inHome ? w.suspensionHome : w.suspensionAway
    case 'outside':
      return Math.max(
        w.outside,
        j.denied ? w.denied : 0,
        j.rub === 'guide' ? w.rubGuide : j.rub === 'root' ? w.rubRoot : 0,
      )
  }
}

/** An overlay's fade: 0.7 of the mean of its notes and 0.3 of the worst, rounded once. `worst` leaves passing notes out. */
export const overlayFade = (sum: number, count: number, worst: number, w: Weights): number =>
  Math.round((w.meanShare * sum + (100 - w.meanShare) * worst * count) / (100 * count))
