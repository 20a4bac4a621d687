import type { Job } from '../chart/job.ts'
import type { Chord } from '../chord/chord.ts'
import type { ScaleName } from '../material/catalogue.ts'
import type { School } from './school.ts'

export interface HomeCase {
  readonly chord: Chord
  readonly job: Job | null
  readonly school: School
}

/** One row of the table: when it applies, its scales (home first) and why. A pair `[name, n]` stands n semitones up. */
export interface HomeRow {
  readonly when: (c: HomeCase) => boolean
  readonly scales: (c: HomeCase) => readonly (ScaleName | readonly [ScaleName, number])[]
  readonly because: string
}

const states = (c: HomeCase, ...tensions: readonly string[]): boolean =>
  tensions.every((t) => c.chord.altered || c.chord.tensions.includes(t) || c.chord.fifth === t)
const anyOf = (c: HomeCase, ...tensions: readonly string[]): boolean => tensions.some((t) => states(c, t))
const dominant = (c: HomeCase): boolean => c.chord.family === 'dominant'
const toMinor = (c: HomeCase): boolean => c.job !== null && c.job.kind === 'V' && c.job.minor
const working = (c: HomeCase, ...kinds: readonly Job['kind'][]): boolean => c.job !== null && kinds.includes(c.job.kind)

const PLAIN_ORDER: Readonly<Record<School['dominantHome'], readonly ScaleName[]>> = {
  'plain first': ['mixolydian', 'half-whole', 'altered', 'lydian dominant', 'whole tone'],
  'altered first': ['altered', 'mixolydian', 'half-whole', 'lydian dominant', 'whole tone'],
  'half-whole first': ['half-whole', 'mixolydian', 'altered', 'lydian dominant', 'whole tone'],
}
const MINOR_ORDER: Readonly<Record<School['minorTonic'], readonly ScaleName[]>> = {
  'melodic minor': ['melodic minor', 'dorian', 'aeolian', 'harmonic minor'],
  dorian: ['dorian', 'melodic minor', 'aeolian', 'harmonic minor'],
  aeolian: ['aeolian', 'melodic minor', 'dorian', 'harmonic minor'],
}

/** The first row that applies gives the scales. Source: theory page, section 4. */
export const HOME_ROWS: readonly HomeRow[] = [
  {
    when: (c) =>
      dominant(c) &&
      (c.chord.altered || (anyOf(c, '#5', 'b13', 'b5') && anyOf(c, '#9')) || (anyOf(c, '#5', 'b5') && anyOf(c, 'b9'))),
    scales: () => ['altered', 'whole tone'],
    because: 'the symbol alters both the fifth and the ninth',
  },
  {
    when: (c) => dominant(c) && anyOf(c, '#5', 'b5'),
    scales: (c) => (states(c, 'b5') ? ['whole tone', 'altered', 'lydian dominant'] : ['whole tone', 'altered']),
    because: 'the symbol alters the fifth and leaves the ninth natural',
  },
  {
    when: (c) => (dominant(c) && anyOf(c, '#9')) || (dominant(c) && states(c, 'b9', '13')),
    scales: () => ['half-whole', 'altered'],
    because: 'the symbol alters the ninth and keeps the 13 natural',
  },
  {
    when: (c) => dominant(c) && anyOf(c, 'b13'),
    scales: () => ['phrygian dominant', 'altered'],
    because: 'the symbol lowers the 13 over a natural fifth',
  },
  {
    when: (c) => dominant(c) && anyOf(c, 'b9') && toMinor(c),
    scales: () => ['phrygian dominant', 'altered', 'half-whole'],
    because: 'the dominant resolves to a minor chord',
  },
  {
    when: (c) => dominant(c) && anyOf(c, 'b9'),
    scales: () => ['half-whole', 'altered', 'phrygian dominant'],
    because: 'the symbol lowers the ninth',
  },
  {
    when: (c) => dominant(c) && anyOf(c, '#11'),
    scales: () => ['lydian dominant', 'mixolydian'],
    because: 'the symbol raises the 11',
  },
  {
    when: (c) => dominant(c) && working(c, 'substitute V', 'backdoor V'),
    scales: () => ['lydian dominant', 'mixolydian'],
    because: 'a substitute or backdoor dominant keeps its ninth and raises its 11',
  },
  {
    when: (c) => dominant(c) && working(c, 'static dominant'),
    scales: () => ['mixolydian', 'lydian dominant', 'minor blues'],
    because: 'the dominant stays where it is',
  },
  {
    when: (c) => dominant(c) && toMinor(c),
    scales: () => ['phrygian dominant', 'altered', 'half-whole'],
    because: 'the dominant resolves to a minor chord',
  },
  {
    when: dominant,
    scales: (c) => PLAIN_ORDER[c.school.dominantHome],
    because: 'the dominant resolves and its symbol alters nothing',
  },
  {
    when: (c) => c.chord.family === 'suspended' && anyOf(c, 'b9'),
    scales: () => ['phrygian', 'dorian b2'],
    because: 'a suspended dominant with a lowered ninth',
  },
  {
    when: (c) => c.chord.family === 'suspended',
    scales: () => ['mixolydian', ['dorian', 7]],
    because: 'on a suspended chord the 4 is in and the 3 is the suspension',
  },
  {
    when: (c) => c.chord.family === 'augmented' && c.chord.seventh !== null,
    scales: () => ['lydian augmented', 'augmented scale'],
    because: 'a major seventh with a raised fifth',
  },
  {
    when: (c) => c.chord.family === 'augmented',
    scales: () => ['whole tone', 'augmented scale', 'lydian augmented'],
    because: 'an augmented triad',
  },
  {
    when: (c) => c.chord.family === 'major' && anyOf(c, '#11', 'b5'),
    scales: () => ['lydian', 'ionian'],
    because: 'the symbol raises the 11',
  },
  {
    when: (c) => c.chord.family === 'major',
    scales: () => ['ionian', 'lydian'],
    because: 'a major chord at rest',
  },
  {
    when: (c) => c.chord.family === 'half-diminished',
    scales: (c) =>
      c.school.halfDiminished === 'locrian' ? ['locrian', 'locrian natural 9'] : ['locrian natural 9', 'locrian'],
    because: 'a half-diminished chord, by the school',
  },
  {
    when: (c) => c.chord.family === 'diminished' && c.school.diminished === 'arpeggio' && c.chord.seventh === 'bb7',
    scales: () => ['dim7 arpeggio', 'whole-half'],
    because: 'a diminished chord, by the school its arpeggio alone',
  },
  {
    when: (c) => c.chord.family === 'diminished',
    scales: () => ['whole-half'],
    because: 'a diminished chord: the half-whole set of the four dominants it stands for',
  },
  {
    when: (c) =>
      c.chord.family === 'minor' &&
      (c.chord.seventh === '6' || c.chord.seventh === '7' || (c.chord.seventh === null && !working(c, 'ii'))),
    scales: (c) => MINOR_ORDER[c.school.minorTonic],
    because: 'a minor chord at rest, by the school',
  },
  {
    when: (c) => c.chord.family === 'minor' && working(c, 'tonic'),
    scales: (c) => (c.school.minorTonic === 'aeolian' ? ['aeolian', 'dorian'] : ['dorian', 'aeolian']),
    because: 'a minor seventh at rest',
  },
  {
    when: (c) => c.chord.family === 'minor',
    scales: () => ['dorian', 'aeolian'],
    because: 'a minor seventh on its way, or standing alone',
  },
  {
    when: () => true,
    scales: () => ['mixolydian without 3', 'dorian', 'mixolydian'],
    because: 'a power chord leaves the third open',
  },
]
