import type { Chord } from '../chord/chord.ts'
import { membersOf } from '../pitch/pcset.ts'
import { type Midi, midi } from '../pitch/units.ts'

const PARTIALS = 6
const DECAY = 0.88
const ROOT_OCTAVE = 48
const TOP_OCTAVE = 60

const hertz = (note: number): number => 440 * 2 ** ((note - 69) / 12)

/** Two pure partials: the published curve of Sethares (1993) after Plomp and Levelt (1965). */
const partialRoughness = (f1: number, a1: number, f2: number, a2: number): number => {
  const low = Math.min(f1, f2)
  const spread = (0.24 / (0.0207 * low + 18.96)) * Math.abs(f2 - f1)
  return Math.min(a1, a2) * (5 * Math.exp(-3.51 * spread) - 5 * Math.exp(-5.75 * spread))
}

/** Sensory dissonance between two harmonic tones, in the curve's own unit. Frequencies in hertz. */
export const toneRoughness = (f: number, g: number): number => {
  let sum = 0
  for (let i = 1; i <= PARTIALS; i++)
    for (let j = 1; j <= PARTIALS; j++) sum += partialRoughness(f * i, DECAY ** (i - 1), g * j, DECAY ** (j - 1))
  return sum
}

/** The chord as it is voiced for listening and for this measure: root from C3 up, its own tones stacked above. */
export const voicingOf = (chord: Chord): readonly Midi[] =>
  membersOf(chord.ownSet).map((up) => midi(ROOT_OCTAVE + chord.root.pc + up))

/** The note on top of the voicing: the nearest above the octave of middle C that is higher than the chord's root. */
export const topOf = (pc: number): Midi => midi(TOP_OCTAVE + 12 + pc)

/**
 * Roughness of each of the twelve pitch classes on top of the chord's voicing, 0..100 over that octave. A second opinion,
 * from acoustics; register matters.
 */
export const roughnessOver = (chord: Chord): readonly number[] => {
  const voicing = voicingOf(chord).map(hertz)
  const raw = Array.from({ length: 12 }, (_, pc) => {
    const top = hertz(topOf(pc))
    return voicing.reduce((sum, f) => sum + toneRoughness(f, top), 0)
  })
  const [least, most] = [Math.min(...raw), Math.max(...raw)]
  return raw.map((r) => (100 * (r - least)) / (most - least))
}
