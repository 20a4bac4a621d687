/**
 * Where good players disagree. Each setting lists its choices, the default first, with who would choose which.
 * Source: theory page, section 4.
 */
export const SCHOOL_CHOICES = {
  suspensions: {
    title: 'Suspensions',
    choices: ['may pass', 'free', 'kept out'],
    why: 'May pass but not rest suits lines over standard harmony; free suits modal players; kept out suits comping and writing.',
  },
  halfDiminished: {
    title: 'Half-diminished',
    choices: ['natural 9', 'locrian'],
    why: 'The natural 9 is the brighter modern sound; Locrian keeps to the notes of the minor key.',
  },
  iiBeforeV: {
    title: 'The ii before its V',
    choices: ['two colours', 'all from the V', 'all from the ii'],
    why: 'Two colours let the dominant arrive as news; one sound suits fast changes.',
  },
  minorTonic: {
    title: 'Minor tonic',
    choices: ['melodic minor', 'dorian', 'aeolian'],
    why: 'Melodic minor is the classic minor tonic; Dorian suits modal pieces; Aeolian suits songs.',
  },
  dominantHome: {
    title: 'Dominant going home',
    choices: ['plain first', 'altered first', 'half-whole first'],
    why: 'Plain first reads a dominant as the key has it; the others start from a coloured sound.',
  },
  fourOverDominant: {
    title: '4 over a dominant',
    choices: ['suspension', 'colour', 'left out'],
    why: 'Most teachers let the 4 pass only; quartal players rest on it; bebop pedagogy often leaves it out.',
  },
  fiveOverHalfDiminished: {
    title: '5 over a half-diminished chord',
    choices: ['outside', 'welcome'],
    why: 'Outside by the symbol; welcome where the chord is heard as plain minor on its way to the dominant.',
  },
  diminished: {
    title: 'Diminished chord',
    choices: ['dominants it stands for', 'whole-half', 'arpeggio'],
    why: 'As the dominants it stands for it leads on; whole-half treats it as a place; the arpeggio alone is the oldest way.',
  },
  strongBeats: {
    title: 'Strong beats of a line',
    choices: ['chord tones', 'chromatic welcome'],
    why: 'Chord tones and extensions on strong beats spell the changes; chromatic notes there are welcome to players who want the pull, if the line then lands.',
  },
  wayHome: {
    title: 'The way home of a line',
    choices: ['smooth', 'angular'],
    why: 'Smooth lands by a step into a chord tone; angular lets a leap, a change of register or a cut end the outside stretch.',
  },
} as const

export type SchoolSetting = keyof typeof SCHOOL_CHOICES
/** One school: a choice for every setting. */
export type School = { readonly [K in SchoolSetting]: (typeof SCHOOL_CHOICES)[K]['choices'][number] }

export const DEFAULT_SCHOOL: School = {
  suspensions: 'may pass',
  halfDiminished: 'natural 9',
  iiBeforeV: 'two colours',
  minorTonic: 'melodic minor',
  dominantHome: 'plain first',
  fourOverDominant: 'suspension',
  fiveOverHalfDiminished: 'outside',
  diminished: 'dominants it stands for',
  strongBeats: 'chord tones',
  wayHome: 'smooth',
}
