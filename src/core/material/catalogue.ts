/**
 * What can be laid over a chord: [name, degrees from the root, other names]. One row is one material, everywhere.
 * A name that starts with a letter follows the root after a space; one that starts with another sign, or the chord
 * suffixes in `SUFFIXES`, stands at the root (`Em`, `E+`). Source: theory page, section 3; the usual jazz textbooks.
 */
export type Row = readonly [name: string, formula: string, otherNames: readonly string[]]

export const TRIADS = [
  ['', '1 3 5', ['major', 'major triad']],
  ['m', '1 b3 5', ['minor', 'minor triad', 'min', '-']],
  ['dim', '1 b3 b5', ['diminished', 'diminished triad', '°', 'dim triad']],
  ['+', '1 3 #5', ['aug', 'augmented', 'augmented triad', 'aug triad']],
  ['sus4', '1 4 5', ['sus', 'sus4 triad', 'sus triad']],
  ['sus2', '1 2 5', ['sus2 triad']],
  ['lydian triad', '1 #4 5', ['lyd triad']],
  ['phrygian triad', '1 b2 5', ['phryg triad']],
  ['major b5 triad', '1 3 b5', ['(b5)', 'major b5']],
] as const satisfies readonly Row[]

export const SEVENTHS = [
  ['maj7 arpeggio', '1 3 5 7', ['major seventh', 'major 7 arpeggio']],
  ['7 arpeggio', '1 3 5 b7', ['dominant seventh', 'dominant 7 arpeggio', 'dom7 arpeggio']],
  ['m7 arpeggio', '1 b3 5 b7', ['minor seventh', 'minor 7 arpeggio']],
  ['mMaj7 arpeggio', '1 b3 5 7', ['minor major seventh']],
  ['m7b5 arpeggio', '1 b3 b5 b7', ['half-diminished', 'half diminished', 'half diminished arpeggio']],
  [
    'dim7 arpeggio',
    '1 b3 b5 bb7',
    ['diminished seventh', 'diminished 7 arpeggio', 'diminished arpeggio', 'dim arpeggio'],
  ],
  ['maj7#5 arpeggio', '1 3 #5 7', []],
  ['7#5 arpeggio', '1 3 #5 b7', []],
  ['7b5 arpeggio', '1 3 b5 b7', []],
  ['7sus4 arpeggio', '1 4 5 b7', ['7sus arpeggio']],
  ['6 arpeggio', '1 3 5 6', ['major sixth']],
  ['m6 arpeggio', '1 b3 5 6', ['minor sixth']],
  ['dim(maj7) arpeggio', '1 b3 b5 7', ['diminished major seventh']],
] as const satisfies readonly Row[]

export const NINTHS = [
  ['maj9 arpeggio', '1 3 5 7 9', ['major ninth']],
  ['9 arpeggio', '1 3 5 b7 9', ['dominant ninth']],
  ['m9 arpeggio', '1 b3 5 b7 9', ['minor ninth']],
  ['mMaj9 arpeggio', '1 b3 5 7 9', ['minor major ninth']],
  ['7(b9) arpeggio', '1 3 5 b7 b9', ['dominant flat nine', '7b9 arpeggio']],
  ['6/9 arpeggio', '1 3 5 6 9', ['six nine']],
] as const satisfies readonly Row[]

/** Fourths upward, three to five notes. */
export const QUARTALS = [
  ['quartal 3', '1 4 b7', ['quartal', 'three fourths', 'quartal triad', 'fourths']],
  ['quartal 4', '1 4 b7 b10', ['four fourths']],
  ['quartal 5', '1 4 b7 b10 b13', ['five fourths']],
] as const satisfies readonly Row[]

export const PENTATONICS = [
  ['major pentatonic', '1 2 3 5 6', ['pentatonic', 'pent', 'major pent', 'maj pentatonic', 'maj pent']],
  [
    'minor pentatonic',
    '1 b3 4 5 b7',
    ['minor pent', 'min pentatonic', 'm pentatonic', 'm pent', 'min pent', '-7 pent'],
  ],
  ['minor 6 pentatonic', '1 b3 4 5 6', ['minor 6 pent', 'm6 pentatonic', 'm6 pent']],
  ['dominant pentatonic', '1 2 3 5 b7', ['dominant pent', 'dom pentatonic', '7 pentatonic']],
  ['minor b5 pentatonic', '1 b3 4 b5 b7', ['minor b5 pent', 'm7b5 pentatonic']],
  ['major b6 pentatonic', '1 2 3 5 b6', ['major b6 pent']],
  ['major b5 pentatonic', '1 2 3 b5 6', ['major b5 pent']],
  ['major b2 pentatonic', '1 b2 3 5 6', ['major b2 pent']],
  // Root, 3 and b7 of an altered dominant with its #9 and #5.
  ['altered pentatonic', '1 #2 3 #5 b7', ['altered pent']],
  ['hirajoshi', '1 2 b3 5 b6', []],
  ['in', '1 b2 4 5 b6', ['in scale']],
  ['insen', '1 b2 4 5 b7', ['in sen', 'in-sen']],
  ['iwato', '1 b2 4 b5 b7', []],
  ['yo', '1 2 4 5 6', ['yo scale']],
  ['kumoi', '1 2 b3 5 6', []],
] as const satisfies readonly Row[]

export const MODES = [
  ['ionian', '1 2 3 4 5 6 7', ['major scale', 'major mode', 'maj scale']],
  ['dorian', '1 2 b3 4 5 6 b7', []],
  ['phrygian', '1 b2 b3 4 5 b6 b7', []],
  ['lydian', '1 2 3 #4 5 6 7', []],
  ['mixolydian', '1 2 3 4 5 6 b7', ['mixo']],
  ['aeolian', '1 2 b3 4 5 b6 b7', ['natural minor', 'nat minor', 'nat min', 'minor scale', 'minor mode']],
  ['locrian', '1 b2 b3 4 b5 b6 b7', []],
  [
    'melodic minor',
    '1 2 b3 4 5 6 7',
    ['jazz minor', 'melodic minor scale', 'mel min', 'mel minor', 'melodic min', 'mm', 'jazz min'],
  ],
  ['dorian b2', '1 b2 b3 4 5 6 b7', ['phrygian 6', 'phrygian natural 6']],
  ['lydian augmented', '1 2 3 #4 #5 6 7', ['lydian #5', 'lydian aug', 'lyd aug']],
  [
    'lydian dominant',
    '1 2 3 #4 5 6 b7',
    ['lydian b7', 'mixolydian #4', 'mixolydian #11', 'lydian dom', 'lyd dom', 'overtone', 'acoustic'],
  ],
  ['mixolydian b6', '1 2 3 4 5 b6 b7', ['mixolydian b13', 'mixo b6', 'mixo b13']],
  [
    'locrian natural 9',
    '1 2 b3 4 b5 b6 b7',
    [
      'locrian 9',
      'locrian natural 2',
      'locrian #2',
      'locrian nat 9',
      'locrian nat 2',
      'aeolian b5',
      'half-diminished scale',
    ],
  ],
  [
    'altered',
    '1 b2 b3 b4 b5 b6 b7',
    [
      'altered scale',
      'super locrian',
      'superlocrian',
      'super-locrian',
      'alt',
      'diminished whole tone',
      'altered dominant',
    ],
  ],
  ['harmonic minor', '1 2 b3 4 5 b6 7', ['harmonic minor scale', 'harm min', 'harm minor', 'harmonic min', 'hm']],
  ['locrian natural 6', '1 b2 b3 4 b5 6 b7', ['locrian 6']],
  ['ionian #5', '1 2 3 4 #5 6 7', ['ionian augmented']],
  ['dorian #4', '1 2 b3 #4 5 6 b7', ['dorian #11']],
  [
    'phrygian dominant',
    '1 b2 3 4 5 b6 b7',
    ['mixolydian b9 b13', 'phrygian major', 'phrygian dom', 'phryg dom', 'spanish phrygian', 'freygish'],
  ],
  ['lydian #2', '1 #2 3 #4 5 6 7', ['lydian #9']],
  ['altered bb7', '1 b2 b3 b4 b5 b6 bb7', ['superlocrian bb7']],
  ['harmonic major', '1 2 3 4 5 b6 7', ['harmonic major scale', 'harm maj', 'harm major']],
  ['dorian b5', '1 2 b3 4 b5 6 b7', ['locrian natural 9 natural 13']],
  ['phrygian b4', '1 b2 b3 b4 5 b6 b7', []],
  ['lydian b3', '1 2 b3 #4 5 6 7', ['melodic minor #4']],
  ['mixolydian b2', '1 b2 3 4 5 6 b7', ['mixolydian b9']],
  ['lydian augmented #2', '1 #2 3 #4 #5 6 7', []],
  ['locrian bb7', '1 b2 b3 4 b5 b6 bb7', []],
] as const satisfies readonly Row[]

export const SIX_NOTE_MODES = [
  ['mixolydian without 3', '1 2 4 5 6 b7', ['mixolydian no 3']],
] as const satisfies readonly Row[]

/** Seven-note scales from further away; no modes of the four that the others come from. */
export const FAR_SCALES = [
  ['double harmonic', '1 b2 3 4 5 b6 7', ['double harmonic major', 'double harmonic scale', 'byzantine']],
  ['hungarian minor', '1 2 b3 #4 5 b6 7', ['double harmonic minor', 'hungarian minor scale']],
  ['neapolitan minor', '1 b2 b3 4 5 b6 7', ['neapolitan', 'neapolitan minor scale']],
  ['neapolitan major', '1 b2 b3 4 5 6 7', ['neapolitan major scale']],
] as const satisfies readonly Row[]

export const BEBOP = [
  ['bebop major', '1 2 3 4 5 #5 6 7', ['major bebop']],
  ['bebop dominant', '1 2 3 4 5 6 b7 7', ['dominant bebop', 'bebop', 'bebop mixolydian']],
  ['bebop dorian', '1 2 b3 3 4 5 6 b7', ['dorian bebop']],
  ['bebop melodic minor', '1 2 b3 4 5 #5 6 7', ['melodic minor bebop']],
] as const satisfies readonly Row[]

export const BLUES = [
  ['minor blues', '1 b3 4 b5 5 b7', ['blues', 'blues scale', 'minor blues scale', 'min blues']],
  ['major blues', '1 2 b3 3 5 6', ['major blues scale', 'maj blues']],
] as const satisfies readonly Row[]

export const SYMMETRIC = [
  [
    'half-whole',
    '1 b2 #2 3 #4 5 6 b7',
    [
      'half whole',
      'half-whole diminished',
      'half whole diminished',
      'dominant diminished',
      'dom dim',
      'hw',
      'h-w',
      'half-whole dim',
      'octatonic',
    ],
  ],
  [
    'whole-half',
    '1 2 b3 4 b5 b6 bb7 7',
    ['whole half', 'whole-half diminished', 'whole half diminished', 'diminished scale', 'dim scale', 'wh', 'w-h'],
  ],
  ['whole tone', '1 2 3 #4 #5 b7', ['whole-tone', 'wholetone', 'whole tone scale', 'wt']],
  ['augmented scale', '1 #2 3 5 #5 7', ['augmented hexatonic', 'aug scale', 'aug hexatonic']],
  ['inverse augmented scale', '1 b2 3 4 #5 6', ['augmented inverse', 'inverse augmented']],
  ['tritone scale', '1 b2 3 #4 5 b7', []],
  [
    'third limited mode',
    '1 2 b3 3 #4 5 b6 b7 7',
    ['third mode of limited transposition', 'nine-note scale', 'messiaen mode 3', 'messiaen 3', 'messiaen third mode'],
  ],
  ['chromatic', '1 b2 2 b3 3 4 #4 5 b6 6 b7 7', ['chromatic scale']],
] as const satisfies readonly Row[]

/** The note a bebop scale adds to pass through: it is left out of an overlay's worst note. */
export const PASSING: Readonly<Record<string, string>> = {
  'bebop major': '#5',
  'bebop dominant': '7',
  'bebop dorian': '3',
  'bebop melodic minor': '#5',
}

export const FAMILIES = {
  triad: TRIADS,
  seventh: SEVENTHS,
  ninth: NINTHS,
  quartal: QUARTALS,
  pentatonic: PENTATONICS,
  mode: [...MODES, ...SIX_NOTE_MODES, ...FAR_SCALES],
  bebop: BEBOP,
  blues: BLUES,
  symmetric: SYMMETRIC,
} as const satisfies Readonly<Record<string, readonly Row[]>>

export type MaterialFamily = keyof typeof FAMILIES
export type MaterialName = (typeof FAMILIES)[MaterialFamily][number][0]
