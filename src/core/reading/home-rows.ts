import type { Job } from '../chart/job.ts'
import type { Chord } from '../chord/chord.ts'
import type { Family } from '../chord/degree-names.ts'
import type { MaterialName } from '../material/catalogue.ts'
import { type Material, materialNamed } from '../material/material.ts'
import type { School } from './school.ts'

export interface HomeCase {
  readonly chord: Chord
  readonly job: Job | null
  readonly school: School
}

/** A scale on the chord's root, or `up` semitones above it. */
export interface Listed {
  readonly material: Material
  readonly up: number
}

/** One row of the table: when it applies, its scales (home first) and why. */
export interface HomeRow {
  readonly when: (c: HomeCase) => boolean
  readonly scales: (c: HomeCase) => readonly Listed[]
  readonly because: string
}

const on = (up: number, name: MaterialName): Listed => ({ material: materialNamed(name), up })
const list = (...names: readonly MaterialName[]): readonly Listed[] => names.map((name) => on(0, name))
const always = (...names: readonly MaterialName[]): HomeRow['scales'] => {
  const scales = list(...names)
  return () => scales
}
const anyCase = (): boolean => true

const states = ({ chord }: HomeCase, tension: string): boolean => {
  const { altered, tensions, fifth } = chord.quality.recipe
  return altered || fifth === tension || tensions.includes(tension)
}
const toMinor = ({ job }: HomeCase): boolean => job !== null && job.kind === 'V' && job.minor
const working = ({ job }: HomeCase, ...kinds: readonly Job['kind'][]): boolean =>
  job !== null && kinds.includes(job.kind)
const altersFifth = (c: HomeCase): boolean => states(c, '#5') || states(c, 'b5')

const PLAIN_DOMINANT: Readonly<Record<School['dominantHome'], readonly Listed[]>> = {
  'plain first': list('mixolydian', 'half-whole', 'altered', 'lydian dominant', 'whole tone'),
  'altered first': list('altered', 'mixolydian', 'half-whole', 'lydian dominant', 'whole tone'),
  'half-whole first': list('half-whole', 'mixolydian', 'altered', 'lydian dominant', 'whole tone'),
}
const MINOR_TONIC: Readonly<Record<School['minorTonic'], readonly Listed[]>> = {
  'melodic minor': list('melodic minor', 'dorian', 'aeolian', 'harmonic minor'),
  dorian: list('dorian', 'melodic minor', 'aeolian', 'harmonic minor'),
  aeolian: list('aeolian', 'melodic minor', 'dorian', 'harmonic minor'),
}
const MINOR_SEVENTH_TONIC: Readonly<Record<School['minorTonic'], readonly Listed[]>> = {
  'melodic minor': list('dorian', 'aeolian'),
  dorian: list('dorian', 'aeolian'),
  aeolian: list('aeolian', 'dorian'),
}
const HALF_DIMINISHED: Readonly<Record<School['halfDiminished'], readonly Listed[]>> = {
  'natural 9': list('locrian natural 9', 'locrian'),
  locrian: list('locrian', 'locrian natural 9'),
}

const DOMINANT: readonly HomeRow[] = [
  {
    when: (c) => (states(c, '#9') && (altersFifth(c) || states(c, 'b13'))) || (states(c, 'b9') && altersFifth(c)),
    scales: always('altered', 'whole tone'),
    because: 'the symbol alters both the fifth and the ninth',
  },
  {
    when: (c) => states(c, 'b5'),
    scales: always('whole tone', 'altered', 'lydian dominant'),
    because: 'the symbol alters the fifth and leaves the ninth natural',
  },
  {
    when: (c) => states(c, '#5'),
    scales: always('whole tone', 'altered'),
    because: 'the symbol alters the fifth and leaves the ninth natural',
  },
  {
    when: (c) => states(c, '#9') || (states(c, 'b9') && states(c, '13')),
    scales: always('half-whole', 'altered'),
    because: 'the symbol alters the ninth and keeps the 13 natural',
  },
  {
    when: (c) => states(c, 'b13'),
    scales: always('phrygian dominant', 'altered'),
    because: 'the symbol lowers the 13 over a natural fifth',
  },
  {
    when: (c) => toMinor(c) && !states(c, '#11'),
    scales: always('phrygian dominant', 'altered', 'half-whole'),
    because: 'the dominant resolves to a minor chord',
  },
  {
    when: (c) => states(c, 'b9'),
    scales: always('half-whole', 'altered', 'phrygian dominant'),
    because: 'the symbol lowers the ninth',
  },
  {
    when: (c) => states(c, '#11'),
    scales: always('lydian dominant', 'mixolydian'),
    because: 'the symbol raises the 11',
  },
  {
    when: (c) => working(c, 'substitute V', 'backdoor V'),
    scales: always('lydian dominant', 'mixolydian'),
    because: 'a substitute or backdoor dominant keeps its ninth and raises its 11',
  },
  {
    when: (c) => standsOn(c, 'static dominant', '2', 'b7'),
    scales: always('lydian dominant', 'mixolydian'),
    because: 'a dominant on the 2 or the b7 that does not resolve raises its 11',
  },
  {
    when: (c) => working(c, 'static dominant'),
    scales: always('mixolydian', 'lydian dominant', 'minor blues'),
    because: 'the dominant stays where it is',
  },
  {
    when: anyCase,
    scales: (c) => PLAIN_DOMINANT[c.school.dominantHome],
    because: 'the dominant resolves and its symbol alters nothing',
  },
]

const restsInMinor = ({ chord, job }: HomeCase): boolean => {
  const { seventh } = chord.quality.recipe
  return seventh === '6' || seventh === '7' || (seventh === null && (job === null || job.kind === 'tonic'))
}
const standsOn = ({ job }: HomeCase, kind: Job['kind'], ...degrees: readonly string[]): boolean =>
  job !== null && job.kind === kind && 'on' in job && degrees.includes(job.on ?? '')

const restsAsSixth = ({ chord }: HomeCase): boolean => ['6', '7'].includes(chord.quality.recipe.seventh ?? '')

const SUSPENDED_SCALES: readonly Listed[] = [on(0, 'mixolydian'), on(7, 'dorian')]

/** By family, the first row that applies gives the scales. Source: theory page, section 4. */
export const HOME_ROWS: Readonly<Record<Family, readonly HomeRow[]>> = {
  dominant: DOMINANT,
  suspended: [
    {
      when: (c) => states(c, 'b9'),
      scales: always('phrygian', 'dorian b2'),
      because: 'a suspended dominant with a lowered ninth',
    },
    {
      when: anyCase,
      scales: () => SUSPENDED_SCALES,
      because: 'on a suspended chord the 4 is in and the 3 is the suspension',
    },
  ],
  augmented: [
    {
      when: (c) => c.chord.quality.recipe.seventh !== null,
      scales: always('lydian augmented', 'augmented scale'),
      because: 'a major seventh with a raised fifth',
    },
    {
      when: anyCase,
      scales: always('whole tone', 'augmented scale', 'lydian augmented'),
      because: 'an augmented triad',
    },
  ],
  major: [
    {
      when: (c) => states(c, '#11') || states(c, 'b5'),
      scales: always('lydian', 'ionian'),
      because: 'the symbol raises the 11',
    },
    { when: (c) => working(c, 'V'), scales: always('mixolydian', 'ionian'), because: 'a major triad that resolves' },
    {
      when: (c) => working(c, 'subdominant', 'borrowed'),
      scales: always('lydian', 'ionian'),
      because: 'a major chord away from its tonic',
    },
    { when: anyCase, scales: always('ionian', 'lydian'), because: 'a major chord at rest' },
  ],
  'half-diminished': [
    {
      when: anyCase,
      scales: (c) => HALF_DIMINISHED[c.school.halfDiminished],
      because: 'a half-diminished chord, by the school',
    },
  ],
  diminished: [
    {
      when: (c) => c.school.diminished === 'arpeggio' && c.chord.quality.recipe.seventh === 'bb7',
      scales: always('dim7 arpeggio', 'whole-half'),
      because: 'a diminished chord, by the school its arpeggio alone',
    },
    {
      when: anyCase,
      scales: always('whole-half'),
      because: 'a diminished chord: the half-whole set of the four dominants it stands for',
    },
  ],
  minor: [
    {
      when: (c) => standsOn(c, 'tonic', '3') && !restsAsSixth(c),
      scales: always('phrygian', 'dorian'),
      because: 'it stands on the 3 of the key',
    },
    {
      when: (c) => standsOn(c, 'tonic', '6') && !restsAsSixth(c),
      scales: always('aeolian', 'dorian'),
      because: 'it stands on the 6 of the key',
    },
    {
      when: restsInMinor,
      scales: (c) => MINOR_TONIC[c.school.minorTonic],
      because: 'a minor chord at rest, by the school',
    },
    {
      when: (c) => working(c, 'tonic'),
      scales: (c) => MINOR_SEVENTH_TONIC[c.school.minorTonic],
      because: 'a minor seventh at rest',
    },
    { when: anyCase, scales: always('dorian', 'aeolian'), because: 'a minor seventh on its way, or standing alone' },
  ],
  power: [
    {
      when: anyCase,
      scales: always('mixolydian without 3', 'dorian', 'mixolydian'),
      because: 'a power chord leaves the third open',
    },
  ],
}
