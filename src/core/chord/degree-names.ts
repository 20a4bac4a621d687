export type Family =
  | 'major'
  | 'minor'
  | 'dominant'
  | 'suspended'
  | 'half-diminished'
  | 'diminished'
  | 'augmented'
  | 'power'

const names = (row: string): readonly string[] => row.split(' ')

/** Degree names by semitones above the root. Source: theory page, section 2. Stated degrees go over these. */
const COLUMNS = {
  dominant: names('1 b9 9 #9 3 11 #11 5 b13 13 b7 7'),
  major: names('1 b9 9 #9 3 11 #11 5 b13 13 b7 7'),
  minor: names('1 b9 9 b3 3 11 #11 5 b13 13 b7 7'),
  halfDiminished: names('1 b9 9 b3 3 11 b5 5 b13 13 b7 7'),
  diminished: names('1 b9 9 b3 3 11 b5 5 b13 bb7 b7 7'),
} as const

const COLUMN_OF: Readonly<Record<Family, keyof typeof COLUMNS>> = {
  dominant: 'dominant',
  suspended: 'dominant',
  major: 'major',
  augmented: 'major',
  power: 'major',
  minor: 'minor',
  'half-diminished': 'halfDiminished',
  diminished: 'diminished',
}

export const columnOf = (family: Family): readonly string[] => COLUMNS[COLUMN_OF[family]]
