import type { MaterialFamily } from '../material/catalogue.ts'

/** What an explanation of a line costs, in bits; shorter is likelier. Source: theory page, section 9. */
export const BITS = {
  root: Math.log2(12),
  family: {
    triad: 2,
    seventh: 2.8,
    pentatonic: 3,
    mode: 3.2,
    symmetric: 3.2,
    quartal: 3.5,
    ninth: 4,
    bebop: 4.2,
    blues: 4.2,
  } satisfies Readonly<Record<MaterialFamily, number>>,
  /** The whole header of what is at hand. */
  ownChord: 1.5,
  insideChord: 2.5,
  home: 2,
  offered: 4.5,
  /** The header of a figure known by its order: a degree cell, fourths, thirds of a scale. */
  figure: 2.5,
  /** Of a figure in its own order: up or down, and then hardly anything is left to say. */
  inOrder: { first: 1, note: 0.6 },
  /** More for a rare shape whose own note neither falls on a beat nor comes again. */
  unproven: 4,
  slip: 4,
  /** Of the same figure again: this share of its header, and more for each note. */
  again: { share: 0.6, more: 1, note: 0.3 },
  /** A note of an m-note cell takes log2 m, unless it is the next one in order or the same again. */
  neighbour: 1,
  repeat: 0.8,
  /** `again`: from the same side as the one before; `strong`: more into a scale from a strong beat; `figure`: of an enclosure or a double chromatic within a cell. */
  approach: { half: 2.4, whole: 2.8, intoArpeggio: 0.5, again: 1, figure: 1.6, strong: 3 },
  foreign: 6,
  outside: { chordTone: 3.2, half: 4.2, whole: 5, else: 6 },
  enclosure: { header: 3, note: 1.4 },
  /** Two triads by turns: which, and then each group of three. */
  pair: { header: 2 * Math.log2(12) + 3, group: 3.6 },
  chordChange: 0.75,
  chordChangeTold: 3,
} as const

/** Shapes that are rarer than their family. */
export const RARE: Readonly<Record<string, number>> = {
  sus4: 1,
  sus2: 1,
  'lydian triad': 2,
  'phrygian triad': 2,
  'major b5 triad': 2,
  'mMaj7 arpeggio': 1,
  'maj7#5 arpeggio': 1.5,
  '7#5 arpeggio': 1,
  '7b5 arpeggio': 1,
  'm6 arpeggio': 1,
  'dim(maj7) arpeggio': 3,
  'minor 6 pentatonic': 1,
  'dominant pentatonic': 1,
  'major b6 pentatonic': 1.5,
  'minor b5 pentatonic': 1.5,
  'major b5 pentatonic': 2,
  'major b2 pentatonic': 2,
  'altered pentatonic': 2,
  'augmented scale': 1,
  'inverse augmented scale': 2,
  'tritone scale': 2,
  'third limited mode': 4,
  chromatic: 3,
  hirajoshi: 2,
  in: 3,
  insen: 2.5,
  iwato: 3,
  yo: 2,
  kumoi: 2,
  phrygian: 0.5,
  locrian: 0.5,
  aeolian: 0.3,
  'mixolydian without 3': 3,
  'altered bb7': 2,
  'lydian augmented #2': 2,
  'locrian bb7': 2,
  'phrygian b4': 2,
  'ionian #5': 1.5,
  'lydian #2': 1.5,
  'locrian natural 6': 1.5,
  'double harmonic': 4,
  'hungarian minor': 4,
  'neapolitan minor': 4,
  'neapolitan major': 4,
}
