import type { Job } from '../chart/job.ts'
import type { Chord, SlashKind } from '../chord/chord.ts'
import type { Family } from '../chord/degree-names.ts'
import type { MaterialName } from '../material/catalogue.ts'
import { MATERIALS, type Material, materialNamed } from '../material/material.ts'
import { rotate } from '../pitch/pcset.ts'
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

/** A held dominant is told by what its last spot does. */
const doing = ({ job }: Pick<HomeCase, 'job'>): Job | null => (job && 'leads' in job && job.leads) || job

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
const working = (c: HomeCase, ...kinds: readonly Job['kind'][]): boolean => {
  const job = doing(c)
  return job !== null && kinds.includes(job.kind)
}
const standsOn = (c: HomeCase, mode: 'major' | 'minor', ...degrees: readonly string[]): boolean => {
  const job = doing(c)
  return job?.mode === mode && job.on !== undefined && degrees.includes(job.on)
}

/** A V of a minor goal, reached or deceived; one on the 5 of a minor key or the 3 of a major one that goes elsewhere. */
export const isOfMinor = (job: Job | null): boolean => {
  const does = doing({ job })
  if (does === null) return false
  if (does.kind === 'V' || does.kind === 'deceptive V') return 'minor' in does && does.minor
  if (does.kind === 'blues V') return does.mode === 'minor'
  if (does.kind !== 'static dominant') return false
  return does.mode === 'minor' ? does.on === '5' : does.mode === 'major' && does.on === '3'
}

/** A dominant away from the fifth it would fall: on the flat 7, the 4, the flat 6 or the flat 3 of a major key. */
const staysAway = (c: HomeCase): boolean =>
  working(c, 'static dominant') && (standsOn(c, 'major', 'b7', '4', 'b6', 'b3', '2') || standsOn(c, 'minor', 'b6'))

/** The II7 that turns into the ii. */
const turnsIntoII = (c: HomeCase): boolean => working(c, 'delayed V') && standsOn(c, 'major', '2')
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

/** Over the I, IV and V of a blues the tonic's own blues scales are offered: so many semitones above the chord. */
export const TONIC_ABOVE: Readonly<Partial<Record<Job['kind'], number>>> = { 'blues I': 0, 'blues IV': 7, 'blues V': 5 }
const bluesScales = (c: HomeCase): readonly Listed[] => {
  const up = TONIC_ABOVE[doing(c)?.kind ?? 'modal'] ?? 0
  const second = working(c, 'blues IV') ? list('lydian dominant') : []
  return [...list('mixolydian'), ...second, on(up, 'minor blues'), on(up, 'major blues')]
}

const DOMINANT: readonly HomeRow[] = [
  {
    when: (c) => (states(c, '#9') && (altersFifth(c) || states(c, 'b13'))) || (states(c, 'b9') && altersFifth(c)),
    scales: always('altered', 'whole tone'),
    because: 'the symbol alters both the fifth and the ninth',
  },
  {
    when: (c) => isOfMinor(c.job) && !states(c, '#11') && (states(c, '#9') || states(c, 'b13') || states(c, '#5')),
    scales: always('altered', 'phrygian dominant', 'half-whole'),
    because: 'it is the V of a minor chord and its symbol alters more than the ninth',
  },
  {
    when: (c) => isOfMinor(c.job) && !states(c, '#11') && !states(c, 'b5'),
    scales: always('phrygian dominant', 'altered', 'half-whole'),
    because: 'it is the V of a minor chord',
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
    when: (c) => working(c, 'blues I', 'blues IV', 'blues V'),
    scales: bluesScales,
    because: 'it stands in a blues',
  },
  {
    when: (c) => working(c, 'substitute V', 'backdoor V'),
    scales: always('lydian dominant', 'mixolydian'),
    because: 'a substitute or backdoor dominant keeps its ninth and raises its 11',
  },
  {
    when: (c) => staysAway(c) || turnsIntoII(c),
    scales: always('lydian dominant', 'mixolydian'),
    because: 'it does not fall a fifth where it stands, so it raises its 11',
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
  return (
    seventh === '6' ||
    seventh === '7' ||
    (seventh === null && (job === null || job.kind === 'tonic' || job.kind === 'blues I'))
  )
}
const tonicOn = (c: HomeCase, degree: string): boolean => working(c, 'tonic') && doing(c)?.on === degree

const restsAsSixth = ({ chord }: HomeCase): boolean => ['6', '7'].includes(chord.quality.recipe.seventh ?? '')

const SUSPENDED_SCALES: readonly Listed[] = [on(0, 'mixolydian'), on(7, 'dorian')]

/** By family, the first row that applies gives the scales. Source: theory page, section 4. */
export const HOME_ROWS: Readonly<Record<Family, readonly HomeRow[]>> = {
  dominant: DOMINANT,
  suspended: [
    {
      when: (c) => states(c, '#9'),
      scales: always('dorian', 'mixolydian'),
      because: 'a suspended chord with a raised ninth has the minor third',
    },
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
    {
      when: (c) => working(c, 'V') && isOfMinor(c.job),
      scales: always('phrygian dominant', 'mixolydian'),
      because: 'a major triad that resolves to a minor chord',
    },
    { when: (c) => working(c, 'V'), scales: always('mixolydian', 'ionian'), because: 'a major triad that resolves' },
    { when: (c) => working(c, 'blues I', 'blues IV'), scales: bluesScales, because: 'it stands in a blues' },
    {
      when: (c) => standsOn(c, 'minor', 'b7') && working(c, 'subdominant'),
      scales: always('mixolydian', 'ionian'),
      because: 'it stands on the b7 of a minor key',
    },
    {
      when: (c) => working(c, 'subdominant', 'borrowed', 'modal'),
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
      when: ({ chord }) => chord.quality.recipe.fifth === '#5' || chord.quality.recipe.tensions.includes('b13'),
      scales: always('aeolian', 'dorian'),
      because: 'the symbol raises the fifth, which over a minor chord is the lowered sixth',
    },
    {
      when: (c) => tonicOn(c, '3') && !restsAsSixth(c),
      scales: always('phrygian', 'dorian'),
      because: 'it stands on the 3 of the key',
    },
    {
      when: (c) => tonicOn(c, '6') && !restsAsSixth(c),
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

/** What a foreign bass makes of the chord above it is at home in; null where the chord's own rows tell. */
export const SLASH_HOMES: Readonly<Record<SlashKind, HomeRow | null>> = {
  suspended: null,
  'suspended b9': null,
  'over its seventh': null,
  lydian: {
    when: anyCase,
    scales: always('lydian', 'ionian'),
    because: 'a major triad a whole step above the bass',
  },
  'lydian augmented': {
    when: anyCase,
    scales: always('lydian augmented', 'augmented scale'),
    because: 'a major triad a major third above the bass',
  },
  phrygian: {
    when: anyCase,
    scales: always('phrygian', 'dorian b2'),
    because: 'a major triad a half step above the bass',
  },
  'half-whole': {
    when: anyCase,
    scales: always('half-whole', 'altered'),
    because: 'a major triad a tritone from the bass',
  },
  diminished: {
    when: anyCase,
    scales: always('whole-half'),
    because: 'a major triad a half step below the bass',
  },
}

/** The scale of the place a modal stretch rests in longest, named from this chord. */
export const restingHome = (job: Job | null): HomeRow | null => {
  const rests = job && 'rests' in job ? job.rests : undefined
  const scale = rests && MATERIALS.find((m) => m.name === rests.scale)
  if (!rests || !scale) return null
  const set = rotate(scale.set, rests.up)
  const mode = MATERIALS.find((m) => m.family === 'mode' && m.set === set)
  if (!mode) return null
  return {
    when: anyCase,
    scales: () => [{ material: mode, up: 0 }],
    because: 'of the stretch it is in, the place that is rested on longest gives the scale',
  }
}
