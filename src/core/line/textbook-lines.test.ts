import { describe, expect, it } from 'vitest'
import { readChart } from '../chart/read-chart.ts'
import { chordInterval } from '../pitch/transpose.ts'
import { midi } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { auditOfWords, lineOfWords } from '../testing/lines.ts'
import { transposeChartText } from '../transpose/chart.ts'
import type { Audit } from './audit.ts'
import { verdictOf } from './verdict.ts'

/** A line over its chart, both moved by semitones; moved notes have no spelling of their own. */
const heardIn = (semitones: number, chart: string, line: string): Audit => {
  const read = readChart(chart)
  if (!read.ok) throw new Error(chart)
  const moved = lineOfWords(line).map(({ at, for: length, pitch }) => ({
    at,
    for: length,
    pitch: midi(pitch + semitones),
  }))
  return auditOfWords(transposeChartText(chart, read.value, chordInterval(semitones)), moved)
}
const KEYS = [0, 3, -4] as const
const faults = (a: Audit) => verdictOf(a, DEFAULT_SCHOOL).filter((s) => s.tone === 'fault')
const F_BLUES = '| F7 | Bb7 | F7 | F7 | Bb7 | Bb7 | F7 | F7 | C7 | Bb7 | F7 | C7 |'

/** Lines a teacher would praise: the verdict, written first, is that nothing is wrong with them. */
const GOOD: readonly (readonly [what: string, chart: string, line: string])[] = [
  ['arpeggios and half steps into each chord', '| Dm7 | G7 | Cmaj7 | % |', 'D4 F4 A4 C5 B4 G4 F4 D4 E4:2 G4 B4 A4:4'],
  ['enclosures of the 3', '| Fmaj7 | Bb7 | Fmaj7 | % |', 'B4 G4 A4 C5 F5 E5 C5 A4 Eb5 C5 D5 F5 Ab4 Bb4 D5 C5 A4:4'],
  [
    'the altered scale down into the 5',
    '| Gm7 | C7 | Fmaj7 | % |',
    'G4 Bb4 D5 F5 A5 G5 F5 D5 Db5 C5 Bb4 Ab4 Gb4 E4 Eb4 Db4 C4:2 A4:4',
  ],
  [
    'half-whole up into the 3',
    '| Em7 | A7 | Dmaj7 | % |',
    'E4 G4 B4 D5 C#5 B4 G4 E4 A4 Bb4 C5 C#5 D#5 E5 F#5 G5 F#5:4',
  ],
  [
    'the tritone partner’s triad',
    '| Am7 | D7 | Gmaj7 | % |',
    'A4 C5 E5 G5 F#5 E5 C5 A4 Ab4 C5 Eb5 Ab5 G5 F#5 Eb5 C5 B4:4',
  ],
  [
    'a side-slip up and back',
    '| Gm7 | % | % | % |',
    'G4 Bb4 D5 F5 D5 Bb4 A4 G4 G#4 B4 D#5 F#5 D#5 B4 A#4 G#4 A4 Bb4 C5 D5 G4:4',
  ],
  [
    'a diminished arpeggio on the b9',
    '| Cm7b5 | F7b9 | Bbm6 | % |',
    'Eb5 C5 Gb4 Eb4 F4 Gb4 Bb4 C5 A4 C5 Eb5 Gb5 F5 Eb5 C5 A4 Bb4 Db5 F5 G5 F5:4',
  ],
  [
    'Phrygian dominant',
    '| Am7b5 | D7 | Gm6 | % |',
    'C5 Eb5 G5 Eb5 C5 A4 G4 Eb4 F#4 A4 C5 Eb5 D5 C5 Bb4 A4 Bb4 D5 G4 E4 D4:4',
  ],
  ['blues over the I', F_BLUES, 'Ab4 A4 C5 D5 F5 Eb5 C5 Ab4 F4:2 C5 B4 Bb4 Ab4 F4 Eb4 F4:4'],
  ['blues over the IV', F_BLUES, '. . . . . . . . C5 Ab4 F4 Ab4 B4 Bb4 Ab4 F4 Ab4 A4 C5 F4:4'],
  [
    'chromatic passing notes',
    '| Bbmaj7 | Gm7 | Cm7 | F7 | Bbmaj7 |',
    'Bb4 A4 Ab4 G4 F4 D4 Eb4 E4 F4 G4 A4 Bb4 D5 Bb4 G4 F4 Eb4 G4 Bb4 D5 C5 B4 Bb4 G4 A4 C5 Eb5 G5 F5 Eb5 C5 A4 Bb4:4',
  ],
  ['a pair of triads', '| Dm7 | % | % |', 'F4 A4 C5 B4 D5 G5 F5 C5 A4 G4 D5 B4 A4:4'],
  ['the pentatonic on the 3', '| Cmaj7 | % | % |', 'E4 G4 A4 B4 D5 E5 D5 B4 A4 G4 E4 D4 E4:4'],
  ['a delayed 4-3', '| Dm7 | G7 | Cmaj7 |', 'A4 G4 F4 E4 D4 F4 A4 C5 C5:2 B4:2 G4 F4 D4 B3 C4:4'],
  ['an anticipation', '| Dm7 | G7 | Cmaj7 | % |', 'F4 A4 C5 E5 D5 C5 A4 B4 D5 F5 Ab5 F5 D5 B4 G4 E4 E4:2 G4 C5:4'],
  [
    'the V held over the I for two beats',
    '| Dm7 | G7 | Cmaj7 | % |',
    'D5 C5 A4 F4 E4 G4 A4 C5 B4 Ab4 F4 D4 Bb4 Ab4 F4 Db5 Bb4 Ab4 F4 Db4 E4:4',
  ],
  ['lines in fourths', '| Am7 | % | % |', 'A4 D5 G5 C5 B4 E5 A5 D5 C5 G4 E4 A4 E4:4'],
  [
    'a minor tonic and its V',
    '| Fm6 | % | Dbmaj7 | C7 | Fm6 |',
    'F4 G4 Ab4 C5 D5 C5 Ab4 F4 E4 F4 G4 Ab4 C5 Ab4 F4:2 Db5 C5 Ab4 F4 Eb4 F4 Ab4 C5 Bb4 Db5 E5 G5 F5 E5 Db5 Bb4 Ab4:4',
  ],
  [
    'whole tones over an augmented dominant',
    '| Dm7 | G7#5 | Cmaj7 |',
    'D4 F4 A4 C5 B4 A4 G4 F4 G4 A4 B4 C#5 D#5 C#5 B4 A4 G4:4',
  ],
  [
    'cells of 1 2 3 5',
    '| Emaj7 | G7 | Cmaj7 | Eb7 | Abmaj7 |',
    'E4 F#4 G#4 B4 C#5 B4 G#4 F#4 G4 A4 B4 D5 F5 D5 B4 G4 C5 B4 G4 E4 D4 E4 G4 B4 Bb4 Db5 Eb5 G5 F5 Eb5 Db5 Bb4 C5:4',
  ],
  [
    'Lydian dominant at the back door',
    '| Cmaj7 | Fm7 | Bb7 | Cmaj7 |',
    'E4 G4 B4 D5 C5 A4 G4 E4 Ab4 C5 Eb5 G5 F5 Eb5 C5 Ab4 D5 E5 F5 E5 D5 C5 Bb4 Ab4 G4:4',
  ],
  ['a bebop scale down', '| G7 | % | Cmaj7 |', 'G5 F#5 F5 E5 D5 C5 B4 A4 G4 F4 E4 D4 C4 B3 D4 F4 E4:4'],
  ['each triad tone from a half step below', '| Cmaj7 | % |', 'C#5 D5 F5 F#5 G#5 A5 F#5 D5 E5:4'],
  ['a scale in thirds', '| Ebmaj7 | % |', 'Eb4 G4 F4 Ab4 G4 Bb4 Ab4 C5 Bb4 D5 C5 Eb5 D5 F5 Eb5:2'],
  [
    'pentatonics that climb through a cadence',
    '| Dm7 | G7 | Cmaj7 |',
    'A4 C5 D5 E5 G5 E5 D5 C5 Bb4 Db5 Eb5 F5 Ab5 F5 Eb5 Db5 B4 D5 E5 F#5 A5 F#5 E5:2',
  ],
  [
    'a line that voices the change in two registers',
    '| Fm7 | Bb7 | Ebmaj7 | % |',
    'Ab4 C5 Eb5 G5 F5 Eb5 C5 Ab4 Gb4 D5 Cb5 Ab4 F4 D4 Cb5 Bb4 G4:4',
  ],
]

/** Lines with one fault put in on purpose: what the verdict must find, and from which note on. */
const BAD: readonly (readonly [what: string, chart: string, line: string, finds: RegExp, at: number])[] = [
  [
    'never lands',
    '| Cmaj7 | % | % |',
    'C4 E4 G4 B4 Bb4 Db5 Eb5 Gb5 Ab5 Gb5 Eb5 Db5 Bb4 Ab4 Gb4 Eb4 Db4:4',
    /unresolved/,
    4,
  ],
  [
    'ends on the 4',
    '| Dm7 | G7 | Cmaj7 |',
    'D4 F4 A4 C5 B4 D5 F5 A5 G5 F5 D5 B4 G4 A4 G4 F4 F4:4',
    /ends on .*suspension/,
    16,
  ],
  ['rests on the 4', '| Fmaj7 | % |', 'A4 C5 Bb4:4 A4 F4 C4', /rests for 2 beats/, 2],
  ['the major third over a minor chord', '| Gm7 | % |', 'G4 D5 B4:2 D5 Bb4 G4:4', /major third over a minor chord/, 2],
  [
    'cut off',
    '| Dm7 | G7 | Cmaj7 | % |',
    'D4 F4 A4 C5 A4 F4 E4 D4 F#4 A#4 C#5 F#5 C#5 A#4 F#4 C#4 C6:4',
    /no step leads home/,
    8,
  ],
  ['a slip that does not come back', '| Fm7 | % |', 'F4 Ab4 C5 Eb5 F#4 A4 C#5 E5 F#5:4', /unresolved/, 4],
  [
    'the natural 7 rests over a static dominant',
    '| G7 | Fmaj7 | G7 | Fmaj7 |',
    'G4 B4 D5 F5 F#5:4 G4:2 D4:2',
    /unresolved|rests/,
    4,
  ],
  ['the b9 rests over a major chord', '| Ebmaj7 | % |', 'Eb4 G4 Bb4 D5 E5:4 Bb4:4', /no step leads home|unresolved/, 4],
  [
    'lands beyond the window',
    '| Dm7 | % | % |',
    'D4 F4 A4 C5 C#5 G#4 E4 C#4 B4 G#4 E4 C#5 . . . . . . A4:4',
    /unresolved/,
    4,
  ],
  [
    'a foreign triad with nowhere to go',
    '| Abmaj7 | % | % |',
    'Ab4 C5 Eb5 G5 A4 C#5 E5 A5 E5 C#5 A4 E4 C#4:4',
    /unresolved/,
    4,
  ],
  [
    'ends on the 4 of a dominant that stays',
    '| E7 | % |',
    'E4 G#4 B4 D5 C#5 B4 G#4 F#4 A4:4',
    /ends on .*suspension/,
    8,
  ],
  [
    'an outside note alone on a strong beat',
    '| Bbmaj7 | % |',
    'Bb4 D5 F5 A5 F#5:2 C5:2 D5:4',
    /strong beat|no step leads home|unresolved/,
    4,
  ],
  [
    'a whole bar in the wrong key before a rest',
    '| Ebm7 | % | % |',
    'Eb4 Gb4 Bb4 Db5 E4 G#4 B4 D#5 F#5 D#5 B4 G#4 . . . . . .',
    /unresolved|no step leads home/,
    4,
  ],
  [
    'rests on the 4 over the I',
    '| Gm7 | C7 | Fmaj7 | % |',
    'G4 Bb4 D5 F5 E5 D5 C5 Bb4 A4 G4 E4 G4 Bb4 C5 D5 C5 A4 C5 F5 C5 Bb4:4 A4:4',
    /rests/,
    20,
  ],
]

describe('a good line is told no fault, in three keys', () => {
  it.each(GOOD)('%s', (_, chart, line) => {
    for (const up of KEYS) expect(faults(heardIn(up, chart, line)), String(up)).toEqual([])
  })
})

describe('a planted fault is found where it is, in three keys', () => {
  it.each(BAD)('%s', (_, chart, line, finds, at) => {
    for (const up of KEYS) {
      const found = faults(heardIn(up, chart, line)).filter((f) => finds.test(f.text))
      expect(
        found.map((f) => f.notes[0]),
        String(up),
      ).toContain(at)
    }
  })
})

/** What a teacher hears a stretch as: from which note to which, and its name in the line's first key. */
const HEARD: readonly (readonly [what: string, chart: string, line: string, ...cells: readonly string[]])[] = [
  ['a triad with each tone approached', '| C6 | % |', 'B4 C5 D#5 E5 F#5 G5 E5 C5:3', '1-8 C'],
  ['an upper triad with each tone approached', '| Fmaj7 | % |', 'F#5 G5 A#5 B5 C#6 D6 B5 G5 A5:4', '1-8 G'],
  ['a triad with its tones enclosed', '| Ab6 | % |', 'Bb4 G4 Ab4 Db5 B4 C5 F5 D5 Eb5:4', '1-9 Ab'],
  ['1 2 3 5', '| Bmaj7 | % | D7 | % |', 'B4 C#5 D#5 F#5 G#5 F#5 E5 C#5 B4:2', '1-4 1 2 3 5 of B'],
  ['1 2 b3 5', '| Gm7 | C7 |', 'G4 A4 Bb4 D5 F5 E5 C5 A4 G4:2', '1-4 1 2 b3 5 of G'],
  ['1 2 3 5 over a foreign root', '| Cmaj7 | % |', 'Db4 Eb4 F4 Ab4 G4 E4 C4:2', '1-4 1 2 3 5 of Db'],
  ['fourths', '| Bm7 | % | % |', 'B3 E4 A4 D5 C#4 F#4 B4 E5 D5 B4 F#4:2', '1-4 B quartal 4', '5-8 C# quartal 4'],
  [
    'three fourths, moved down a scale',
    '| Am7 | % |',
    'G5 D5 A4 F#5 C5 G4 E5 B4 F#4 D5 A4 E4 C4:4',
    '1-3 A quartal 3',
    '4-6 A dorian',
    '7-9 F# quartal 3',
    '10-12 E quartal 3',
  ],
  [
    'fourths up and down',
    '| Bm7 | % |',
    'B4 E5 A5 G5 D5 A4 F#4 B4 E5 D5 A4 E4 F#4:4',
    '1-3 B quartal 3',
    '4-6 A quartal 3',
  ],
  ['thirds through a scale', '| Gmaj7 | % |', 'G4 B4 A4 C5 B4 D5 C5 E5 D5 F#5 E5 G5 F#5:4', '1-12 G ionian'],
  ['a blues scale', F_BLUES, 'Ab4 Bb4 B4 C5 Eb5 C5 Bb4 Ab4 F4:4', '1-9 F minor blues'],
  ['a blues scale over the IV', F_BLUES, '. . . . . . . . F5 Eb5 C5 B4 Bb4 Ab4 F4 Eb4 F4:4', '1-9 F minor blues'],
  ['half-whole', '| E7 | Amaj7 |', 'E4 F4 G4 G#4 A#4 B4 C#5 D5 C#5:4', '1-8 E half-whole'],
  [
    'altered',
    '| Ebm7 | Ab7 | Dbmaj7 |',
    'Eb4 Gb4 Bb4 Db5 Bb4 Gb4 F4 Eb4 E5 D5 C5 B4 A4 Ab4 Gb4 E4 F4:4',
    '9-16 Ab altered',
  ],
  [
    'a slip, spelled as itself',
    '| Cm7 | % | % |',
    'C4 Eb4 G4 Bb4 B3 D4 F#4 A4 F#4 D4 B3 A3 G4:4',
    '1-4 Cm7 arpeggio',
    '5-8 Bm7 arpeggio',
  ],
  ['whole tones', '| F7 | % |', 'F4 G4 A4 B4 C#5 B4 A4 G4 F4:4', '1-9 F whole tone'],
  ['two triads by turns', '| G7sus4 | % | % |', 'F4 A4 C5 D5 B4 G4 A4 C5 F5 G5 D5 B4 A4:4', '1-12 F & G'],
  [
    'a minor pentatonic on the 3',
    '| Abmaj7 | % |',
    'C5 Eb5 F5 G5 Bb5 G5 F5 Eb5 C5 Bb4 G4 F4 G4:4',
    '1-13 C minor pentatonic',
  ],
]

describe('the shapes a line is made of', () => {
  it.each(HEARD)('%s', (_, chart, line, ...cells) => {
    const shapes = (a: Audit) => a.cells.filter((c) => c.overlay)
    const names = shapes(auditOfWords(chart, line)).map((c) => `${c.from + 1}-${c.to + 1} ${c.overlay?.name}`)
    for (const cell of cells) expect(names).toContain(cell)
    const spans = (up: number) =>
      shapes(heardIn(up, chart, line)).map((c) => `${c.from}-${c.to} ${c.how} ${c.overlay?.material?.name ?? ''}`)
    for (const up of KEYS) expect(spans(up), String(up)).toEqual(spans(0))
  })
  it('are not heard over the borders of a sequence, exact or within the scale', () => {
    const fours = auditOfWords('| Dmaj7 | % | % |', 'D4 E4 F#4 G4 E4 F#4 G4 A4 F#4 G4 A4 B4 G4 A4 B4 C#5 D5:4')
    expect(fours.sequences).toMatchObject([{ from: 0, to: 15, length: 4, by: 1, times: 4, tonal: true }])
    expect(fours.cells.map((c) => [c.from, c.to])).toEqual([
      [0, 3],
      [4, 7],
      [8, 11],
      [12, 15],
      [16, 16],
    ])
    const exact = auditOfWords('| Cm7 | % | % |', 'C4 Eb4 G4 Bb4 C#4 E4 G#4 B4 D4 F4 A4 C5 G4:4')
    expect(exact.sequences).toMatchObject([{ from: 0, to: 11, length: 4, by: 1, times: 3, tonal: false }])
    expect(exact.cells.slice(0, 3).map((c) => [c.from, c.to])).toEqual([
      [0, 3],
      [4, 7],
      [8, 11],
    ])
  })
  it('spell their notes from themselves: a slip down from a flat key has sharps', () => {
    const a = auditOfWords(
      '| Cm7 | % | % |',
      lineOfWords('C4 Eb4 G4 Bb4 B3 D4 F#4 A4 F#4 D4 B3 A3 G4:4').map(({ note: _, ...n }) => n),
    )
    expect(a.notes.slice(4, 8).map((n) => n.name.name)).toEqual(['B', 'D', 'F#', 'A'])
  })
  it('take no double accidental where the chord has a plain name', () => {
    for (const up of KEYS)
      for (const line of ['E4 C4 C#4 Eb4 F4 G4:4', 'C4 Db4 F4 G4 Cb5 Eb4 C4:4', 'E4 F#4 Ab4 Bb4 C5 G4:4'])
        for (const { name, degree } of heardIn(up, '| Cmaj7 | % |', line).notes)
          if (!degree?.startsWith('bb')) expect(Math.abs(name.alter), `${name.name} ${degree} ${up}`).toBeLessThan(2)
  })
  it('what is no enclosure: thirds of a scale, the top of an arpeggio; what is: both sides, on a beat', () => {
    const none = ['C4 E4 D4 F4 E4 G4 F4 A4 G4 B4 A4:4', 'C4 E4 G4 B4 D5 C5:4']
    for (const line of none) expect(auditOfWords('| Cmaj7 | % |', line).figures).toEqual([])
    expect(auditOfWords('| Cmaj7 | % |', 'F4 D#4 E4:2 G4:4').figures).toMatchObject([
      { kind: 'enclosure', from: 0, to: 2 },
    ])
  })
  it('a first note hangs over from nothing', () => {
    const a = auditOfWords('| G7 | Cmaj7 |', '. . . . . . . . F4:2 E4:2 G4:4')
    expect(verdictOf(a, DEFAULT_SCHOOL).some((s) => s.text.includes('hangs over'))).toBe(false)
  })
})
