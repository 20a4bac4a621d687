import { describe, expect, it } from 'vitest'
import { chordInterval } from '../pitch/transpose.ts'
import { homeName } from '../reading/home.ts'
import { placeOf } from '../reading/read.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { transposeChart } from '../transpose/chart.ts'
import { type AnalysedSpot, analyseChart } from './analyse.ts'
import { keyName } from './chart.ts'
import { jobName } from './job.ts'
import { readChart } from './read-chart.ts'

const chart = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(`${text}: ${JSON.stringify(read.error)}`)
  return read.value
}
const homeAt = (s: AnalysedSpot): string =>
  s.spot.chord.kind === 'chord' ? homeName(placeOf(s.spot.chord, s.next, DEFAULT_SCHOOL, s.job).home.first) : ''
/** `1 C7: blues I, C mixolydian`, one for each spot. */
const told = (text: string): readonly string[] =>
  analyseChart(chart(text), true).spots.map(
    (s) => `${s.spot.bar} ${s.spot.chord.symbol}: ${s.job ? jobName(s.job) : '-'}, ${homeAt(s)}`,
  )
/** What does not name a key: kinds, degrees, formulas of home. The same in all twelve. */
const inKey = (text: string, semitones: number) => {
  const { key, spots } = analyseChart(transposeChart(chart(text), chordInterval(semitones)), true)
  return [key.mode, ...spots.map((s) => [s.job?.kind, s.degree, homeAt(s).replace(/^\S+ /, '')])]
}
const expectInTwelveKeys = (text: string): void => {
  for (let up = 1; up < 12; up++) expect(inKey(text, up), `${text} up ${up}`).toEqual(inKey(text, 0))
}

type Case = readonly [what: string, text: string, ...expected: readonly string[]]

/** Written by hand as a teacher writes them; only what each case is about. */
const BLUES: readonly Case[] = [
  [
    'basic',
    '| G7 | % | % | % | C7 | % | G7 | % | D7 | C7 | G7 | D7 |',
    '1 G7: blues I, G mixolydian',
    '4 G7: blues I, G mixolydian',
    '6 C7: blues IV, C mixolydian',
    '9 D7: blues V, D mixolydian',
    '10 C7: blues IV, C mixolydian',
    '12 D7: blues V, D mixolydian',
  ],
  [
    'quick change, ii-V into the IV, sharp IV diminished, iii-VI, ii-V',
    '| Bb7 | Eb7 | Bb7 | Fm7 Bb7 | Eb7 | Edim7 | Bb7/F | Dm7b5 G7 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |',
    '2 Eb7: blues IV, Eb mixolydian',
    '4 Fm7: ii of Eb, F dorian',
    '4 Bb7: V of Eb, Bb mixolydian',
    '6 Edim7: passing diminished to Bb, E whole-half',
    '7 Bb7/F: blues I, Bb mixolydian',
    '8 Dm7b5: ii of Cm, D locrian natural 9',
    '8 G7: V of Cm, G phrygian dominant',
    '9 Cm7: ii of Bb, C dorian',
    '10 F7: V of Bb, F mixolydian',
    '11 Bb7: blues I, Bb mixolydian',
  ],
  [
    'an altered I on the way to the IV',
    '| A7 | D7 | A7 | A7alt | D9 | D#dim7 | A7 | F#7b9 | Bm7 | E7 | A7 F#7 | Bm7 E7 |',
    '3 A7: blues I, A mixolydian',
    '4 A7alt: V of D, A altered',
    '5 D9: blues IV, D mixolydian',
    '8 F#7(b9): V of Bm, F# phrygian dominant',
  ],
  [
    'minor, by way of the flat VI',
    '| Dm7 | Gm7 | Dm7 | D7b9 | Gm7 | % | Dm7 | % | Bb7 | A7 | Dm7 | A7#9 |',
    '1 Dm7: blues I, D dorian',
    '2 Gm7: blues IV, G dorian',
    '4 D7(b9): V of Gm, D phrygian dominant',
    '9 Bb7: substitute V of A, Bb lydian dominant',
    '10 A7: blues V, A phrygian dominant',
    '12 A7(#9): blues V, A altered',
  ],
  [
    'minor, by its own ii and V',
    '| Ebm6 | % | % | % | Abm6 | % | Ebm6 | % | Fm7b5 | Bb7 | Ebm6 | Fm7b5 Bb7 |',
    '1 Ebm6: blues I, Eb melodic minor',
    '5 Abm6: blues IV, Ab melodic minor',
    '9 Fm7b5: ii of Ebm, F locrian natural 9',
    '10 Bb7: V of Ebm, Bb phrygian dominant',
  ],
  [
    'eight bars',
    '| E7 | B7 | A7 | A7 | E7 | B7 | E7 A7 | E7 B7 |',
    '2 B7: blues V, B mixolydian',
    '3 A7: blues IV, A mixolydian',
    '7 A7: blues IV, A mixolydian',
  ],
  [
    'eight bars with a turnaround',
    '| F7 | F7 | Bb7 | Bdim7 | F7 | D7 | Gm7 C7 | F7 C7 |',
    '1 F7: blues I, F mixolydian',
    '3 Bb7: blues IV, Bb mixolydian',
    '4 Bdim7: common-tone diminished, B whole-half',
    '6 D7: V of Gm, D phrygian dominant',
    '8 C7: blues V, C mixolydian',
  ],
  [
    'sixteen bars, the end three times',
    '| C7 | % | % | % | F7 | % | C7 | % | G7 | F7 | G7 | F7 | G7 | F7 | C7 | G7 |',
    '5 F7: blues IV, F mixolydian',
    '13 G7: blues V, G mixolydian',
  ],
  [
    'sixteen bars, eight of them on the I',
    '| D7 | % | % | % | % | % | % | % | G7 | % | D7 | % | A7 | G7 | D7 | A7 |',
    '8 D7: blues I, D mixolydian',
    '9 G7: blues IV, G mixolydian',
  ],
  [
    'twenty-four bars',
    '| Ab7 | % | % | % | % | % | % | % | Db7 | % | % | % | Ab7 | % | % | % | Eb7 | % | Db7 | % | Ab7 | % | Eb7 | % |',
    '9 Db7: blues IV, Db mixolydian',
    '17 Eb7: blues V, Eb mixolydian',
  ],
  [
    'a sixth on its I, and substitutes on the way',
    '| B6 | A#m7b5 D#7 | G#m7 | F#m7 B7 | E7 | Em7 | D#m7 | Dm7 | C#m7 | F#7 | B6 G#7 | C#m7 F#7 |',
    '1 B6: blues I, B mixolydian',
    '2 D#7: V of G#m, D# phrygian dominant',
    '5 E7: blues IV, E mixolydian',
    '9 C#m7: ii of B, C# dorian',
  ],
  [
    'the tritone partner into the IV',
    '| Eb7 | Ab7 | Eb7 | Bbm7 A7 | Ab7 | Adim7 | Eb7 | C7 | Fm7 | Bb7 | Eb7 Gb7 | F7 E7 |',
    '4 A7: substitute V of Ab, A lydian dominant',
    '12 E7: substitute V of Eb, E lydian dominant',
  ],
  [
    'eight bars, its I with the blue third beside the 3',
    '| C7#9 | % | F7 | C7#9 | G7 | F7 | C7#9 | G7#9 |',
    '1 C7(#9): blues I, C half-whole',
    '3 F7: blues IV, F mixolydian',
    '4 C7(#9): blues I, C half-whole',
    '5 G7: blues V, G mixolydian',
  ],
  [
    'sevenths that swing between I and IV',
    '| F#7 | B7 | F#7 | B7 |',
    '1 F#7: blues I, F# mixolydian',
    '2 B7: blues IV, B mixolydian',
  ],
  [
    'none: a hymn of eight bars, whose seventh leads to the IV',
    '| Ab | Ab7 | Db | Dbm | Ab/Eb | Eb7 | Ab | % |',
    '1 Ab: tonic, Ab ionian',
    '2 Ab7: V of Db, Ab mixolydian',
    '3 Db: subdominant, Db lydian',
    '6 Eb7: V of Ab, Eb mixolydian',
  ],
]

const MINOR: readonly Case[] = [
  [
    'held, one job and one scale',
    '| Dm6 | % | A7 | % | % | % | Dm6 | % |',
    '3 A7: V of Dm, A phrygian dominant',
    '6 A7: V of Dm, A phrygian dominant',
  ],
  [
    'held for longer, static until its last bar',
    '| C7 | % | % | % | % | % | Fm6 | % |',
    '1 C7: static dominant, C phrygian dominant',
    '6 C7: V of Fm, C phrygian dominant',
  ],
  [
    'suspended and plain are one',
    '| E7sus4 | E7 | Am6 | % |',
    '1 E7sus4: V of Am, E mixolydian',
    '2 E7: V of Am, E phrygian dominant',
  ],
  [
    'deceived in minor',
    'key = A minor\n| Am7 | E7 | Fmaj7 | E7 | Am6 | % |',
    '2 E7: deceptive V of Am, E phrygian dominant',
  ],
  [
    'deceived by the III7 of a major key',
    '| Cmaj7 | E7 | Fmaj7 | Dm7 G7 | Cmaj7 | % |',
    '2 E7: deceptive V of Am, E phrygian dominant',
  ],
  [
    'the III7 that goes to the ii',
    '| Ebmaj7 | G7 | Fm7 | Bb7 | Eb6 | % |',
    '2 G7: static dominant, G phrygian dominant',
  ],
  [
    'the V of a minor key that goes to its iv',
    'key = F# minor\n| F#m7 | C#7 | Bm7 | C#7 | F#m6 | % |',
    '2 C#7: static dominant, C# phrygian dominant',
  ],
  ['a raised ninth', '| Gm6 | D7#9 | Gm6 | % |', '2 D7(#9): V of Gm, D altered'],
  ['a lowered thirteenth', '| Bm6 | F#7b13 | Bm6 | % |', '2 F#7(b13): V of Bm, F# altered'],
  ['a raised fifth', '| Cm6 | G7#5 | Cm6 | % |', '2 G7#5: V of Cm, G altered'],
  ['a lowered ninth', '| Bbm6 | F7b9 | Bbm6 | % |', '2 F7(b9): V of Bbm, F phrygian dominant'],
  ['to a minor seventh that is a ii', '| Fmaj7 | D7 | Gm7 | C7 | F6 | % |', '2 D7: V of Gm, D phrygian dominant'],
  ['to major: half-whole stays', '| G7b9 | Cmaj7 | % | % |', '1 G7(b9): V of C, G half-whole'],
  ['the flat VII7 of a minor key', '| Dm7 | C7 | Dm7 | C7 | Bb7 A7 | Dm6 |', '2 C7: static dominant, C mixolydian'],
]

const SLASHED: readonly Case[] = [
  ['a triad a whole step below its bass', '| Bb/C | C7 | Fmaj7 | % |', '1 Bb/C: V of F, C mixolydian'],
  ['a minor seventh on the fifth', '| Bm7/E | % | Amaj7 | % |', '1 Bm7/E: V of A, E mixolydian'],
  ['a major seventh a whole step below', '| Dbmaj7/Eb | % | Abmaj7 | % |', '1 Dbmaj7/Eb: V of Ab, Eb mixolydian'],
  ['a triad a whole step above, at rest', '| Cmaj7 | D/C | Cmaj7 | D/C |', '2 D/C: modal, C lydian'],
  ['the same on its way', '| Am7 | D/C | G/B | Em7 | Am7 D7 | G6 |', '2 D/C: V of G, D mixolydian'],
  ['a vamp rests where it rests longest', '| Bbmaj7 | C/Bb | Bbmaj7 | C/Bb |', '1 Bbmaj7: modal, Bb lydian'],
  ['a triad a third above', '| Ab/E | % | Amaj7 | E7 | Amaj7 | % |', '1 Ab/E: borrowed, E lydian augmented'],
  ['a triad a half step above, falling a fifth', '| Gb/F | % | Bbm7 | % |', '1 Gb/F: V of Bbm, F phrygian'],
  ['a triad a half step above the V of a minor key', '| F/E | % | Am7 | % |', '1 F/E: V of Am, E phrygian'],
  ['a triad a tritone away', '| Eb/A | % | Dmaj7 | % |', '1 Eb/A: V of D, A half-whole'],
  ['a triad a half step below', '| Fmaj7 | E/F | Fmaj7 | Gm7 C7 |', '2 E/F: common-tone diminished, F whole-half'],
  ['an inversion is the chord itself', '| Eb/G | Fm7 Bb7 | Eb6 | % |', '1 Eb/G: tonic, Eb ionian'],
  ['a seventh under a minor chord', '| F#m | F#m/E | D#m7b5 | Dmaj7 |', '2 F#m/E: tonic, F# dorian'],
  ['a major seventh under a minor chord', '| Gm | Gm/F# | Gm/F | Gm/E |', '2 Gm/F#: tonic, G melodic minor'],
  [
    'over a pedal each keeps its own row',
    '| D | C/D | G/D | Gm/D | D | A7/D | D |',
    '2 C/D: borrowed, C lydian',
    '6 A7/D: V of D, A mixolydian',
  ],
]

const KEYS: readonly Case[] = [
  [
    'suspended chords held for long are each a place',
    '| A7sus4 | % | % | % | C7sus4 | % | % | % |',
    '1 A7sus4: modal, A mixolydian',
    '8 C7sus4: modal, C mixolydian',
  ],
  [
    'a minor chord held for long beside another is a place too',
    '| Fm7 | % | % | % | Bbm7 | % | % | % | Fm7 | % | % | % |',
    '1 Fm7: modal, F dorian',
    '6 Bbm7: modal, Bb dorian',
  ],
  [
    'a V before its ii is delayed',
    '| Amaj7 E7 | Bm7 E7 | Amaj7 | % |',
    '1 E7: delayed V of A, E mixolydian',
    '2 E7: V of A, E mixolydian',
  ],
  [
    'three tonics a major third apart',
    '| Amaj7 C7 | Fmaj7 Ab7 | Dbmaj7 E7 | Amaj7 |',
    '2 Fmaj7: tonic, F ionian',
    '3 Dbmaj7: tonic, Db ionian',
    '4 Amaj7: tonic, A ionian',
  ],
  [
    'a turnaround by thirds stays at home',
    '| Fmaj7 Ab7 | Dbmaj7 Gb7 | Fmaj7 D7 | Gm7 C7 | F6 | % |',
    '2 Dbmaj7: borrowed, Db lydian',
    '2 Gb7: substitute V of F, Gb lydian dominant',
  ],
  [
    'a IV reached by its V is still a IV',
    '| Gmaj7 | Dm7 G7 | Cmaj7 | Am7 D7 | G6 | % |',
    '3 Cmaj7: subdominant, C lydian',
  ],
  ['the back door', '| Bbmaj7 | Ebm7 Ab7 | Bbmaj7 | F7 |', '2 Ab7: backdoor V of Bb, Ab lydian dominant'],
  ['a IV7 that stays', '| Dmaj7 | G7 | Dmaj7 | A7 |', '2 G7: static dominant, G lydian dominant'],
  ['a flat VI7 that stays', '| Emaj7 | C7 | Emaj7 | B7 |', '2 C7: static dominant, C lydian dominant'],
  [
    'a II7 that turns into the ii',
    '| Abmaj7 | Bb7 | Bbm7 | Eb7 | Ab6 | % |',
    '2 Bb7: delayed V of Eb, Bb lydian dominant',
  ],
  [
    'a VI7 that turns into a ii',
    '| Cmaj7 | A7 | Am7 D7 | Gmaj7 | Dm7 G7 | Cmaj7 |',
    '2 A7: delayed V of D, A lydian dominant',
  ],
  ['a vamp a half step apart', '| Em7 | Fmaj7 | Em7 | Fmaj7 |', '1 Em7: modal, E phrygian', '2 Fmaj7: modal, F lydian'],
  ['a vamp a whole step apart', '| Bbm7 | Cm7 | Bbm7 | Cm7 |', '1 Bbm7: modal, Bb dorian', '2 Cm7: modal, C phrygian'],
  ['the vii before the common tone', '| Am7 | G#dim7 | Am7 | % |', '2 G#dim7: vii of Am, G# whole-half'],
  [
    'the sharp iv before the common tone',
    '| Dbmaj7 | Gbmaj7 Gdim7 | Db/Ab | Ab7 |',
    '2 Gdim7: passing diminished to Db, G whole-half',
  ],
  ['the flat VII of a minor key', '| Gm | F | Eb | D7 |', '2 F: subdominant, F mixolydian'],
]

describe.each([
  ['a blues, told by its form', BLUES],
  ['dominants of a minor goal', MINOR],
  ['chords over a foreign bass', SLASHED],
  ['keys, and dominants that do not fall a fifth', KEYS],
] as const)('%s', (_, cases) => {
  it.each(cases)('%s', (_, text, ...expected) => {
    const all = told(text)
    for (const line of expected) expect(all).toContain(line)
    expectInTwelveKeys(text)
  })
})

describe('the key of a whole form', () => {
  it.each([
    ['| Ebm7 | Ab7 | Dbmaj7 | % | Dm7 | G7 | Cmaj7 | % | Dm7 | G7 | Cmaj7 | % |', 'C major'],
    ['| Bmaj7 D7 | Gmaj7 Bb7 | Ebmaj7 | C#m7 F#7 | Bmaj7 | C#m7 F#7 |', 'B major'],
    ['| G7 | C7 | G7 | G7 | C7 | C#dim7 | G7 | Bm7b5 E7 | Am7 | D7 | G7 E7 | Am7 D7 |', 'G major'],
    ['| Dm7 | % | % | % | % | % | % | % | Ebm7 | % | % | % | Dm7 | % | % | % |', 'D minor'],
    ['| Fmaj7 | G/F | Fmaj7 | G/F |', 'F major'],
    ['| Ab7 | Gb/Ab | Ab7 | Gb/Ab |', 'Ab major'],
    ['| Cm6 | Ab7 | Dm7b5 G7 | Cm6 | Bb7 | Ebmaj7 | Abmaj7 | G7b9 |', 'C minor'],
    ['key = E minor\n| Em7 | Am7 | Em7 | D7 | Gmaj7 | Cmaj7 | F#m7b5 B7 | Em6 |', 'E minor'],
    ['| Amaj7 | F#m7 | Bm7 | E7 | C#m7 | F#7 | Bm7 E7 | A6 |', 'A major'],
    ['| F#m7 B7 | Emaj7 | Am7 D7 | Gmaj7 | F#m7 B7 | E6 |', 'E major'],
    ['| Bbm6 | Cm7b5 F7 | Bbm6 | Ebm6 | F7 | Bbm6 |', 'Bb minor'],
    ['| Dbmaj7 E7 | Amaj7 D7 | Dbmaj7 Bb7 | Ebm7 Ab7 |', 'Db major'],
  ])('%s: %s', (text, key) => {
    expect(keyName(analyseChart(chart(text), true).key)).toBe(key)
  })
  it('a key line is taken at its word, for the blues and its every chord', () => {
    const blues = 'key = F\n| F7 | Bb7 | F7 | F7 | Bb7 | Bb7 | F7 | Am7b5 D7 | Gm7 | C7 | F7 | C7 |'
    const { key, spots } = analyseChart(chart(blues), true)
    expect(keyName(key)).toBe('F major')
    expect(new Set(spots.map((s) => s.key && keyName(s.key)))).toEqual(new Set(['F major']))
  })
})

describe('chains', () => {
  it.each([
    ['| Gmaj7 E7 | Am7 D7 | Gmaj7 | % |', 'turnaround'],
    ['| Bm7 E7 | Am7 D7 | Gmaj7 | % |', 'turnaround'],
    ['| Cmaj7 Ebmaj7 | Abmaj7 Dbmaj7 | Cmaj7 | % |', 'turnaround'],
    ['| Fm7 | E7 | Ebmaj7 | % |', 'ii-subV-I'],
    ['| Bmaj7 D7 | Gmaj7 Bb7 | Ebmaj7 | % |', 'major-third cycle'],
    ['| Cmaj7 Bb7 | Ebmaj7 Db7 | Gbmaj7 | % |', 'minor-third cycle'],
    ['| Dm DmMaj7 | Dm7 Dm6 | Gm7 | A7 |', 'line cliche'],
    ['| B7 | E7 | A7 | Dmaj7 |', 'cycle of dominants'],
  ])('%s has a %s', (text, kind) => {
    expect(analyseChart(chart(text), true).chains.map((c) => c.kind)).toContain(kind)
  })
})
