import { describe, expect, it } from 'vitest'
import { readJob } from '../chart/job.ts'
import { materialNamed } from '../material/material.ts'
import { generatedRoot, placeOn } from '../material/overlay.ts'
import { pitchClass } from '../pitch/units.ts'
import { chordNamed, overlayNamed, placeNamed } from '../testing/words.ts'
import { candidatesOver } from './candidates.ts'
import { homeOverlay } from './home.ts'
import { ANYTHING, rankOverlays } from './rank.ts'
import { placeOf, readOver } from './read.ts'
import type { Place } from './role.ts'
import { DEFAULT_SCHOOL } from './school.ts'
import { DEFAULT_WEIGHTS } from './weights.ts'

const blues = (chord: string, next: string, kind: 'blues I' | 'blues IV' | 'blues V'): Place =>
  placeOf(chordNamed(chord), chordNamed(next), DEFAULT_SCHOOL, {
    ...(readJob(kind) ?? { kind }),
    on: '1',
    mode: 'major',
  })
const shown = (place: Place, count = 12): readonly string[] =>
  rankOverlays(place, ANYTHING, DEFAULT_WEIGHTS)
    .slice(0, count)
    .map((r) => r.overlay().name)

/** Usual chords with their job, and what a teacher would show first there, whatever its order. */
const FIRST: readonly [what: string, place: Place, ...among: string[]][] = [
  ['a tonic', placeNamed('Abmaj7'), 'F minor pentatonic', 'C minor pentatonic', 'G minor pentatonic', 'Eb', 'Bb'],
  [
    'a IV',
    placeOf(chordNamed('Dmaj7'), null, DEFAULT_SCHOOL, { kind: 'subdominant', on: '4', mode: 'major' }),
    'D & E',
    'C# minor pentatonic',
    'A',
  ],
  ['a ii', placeNamed('Fm7', 'Bb7'), 'F minor pentatonic', 'C minor pentatonic', 'G minor pentatonic', 'Eb', 'Ab & Bb'],
  [
    'a V going home',
    placeNamed('B7', 'Emaj7'),
    'D minor pentatonic',
    'F',
    'G',
    'F & G',
    'C melodic minor',
    'B half-whole',
  ],
  [
    'a V of a minor chord',
    placeNamed('E7', 'Am7'),
    'F melodic minor',
    'A harmonic minor',
    'G minor pentatonic',
    'Bb',
    'C',
    'Bb & C',
  ],
  ['an altered dominant', placeNamed('Db7alt', 'Gbm7'), 'D melodic minor', 'E minor pentatonic', 'G', 'A', 'G & A'],
  ['a flat nine', placeNamed('A7b9', 'Dmaj7'), 'A half-whole', 'F#', 'C & F#'],
  ['a suspended dominant', placeNamed('Eb7sus4', 'Abmaj7'), 'Db', 'Db & Eb', 'Bb minor pentatonic', 'Dbmaj7 arpeggio'],
  ['a raised eleven', placeNamed('F7#11', 'Emaj7'), 'G', 'C melodic minor', 'F & G'],
  ['half-diminished', placeNamed('F#m7b5', 'B7'), 'A melodic minor', 'B minor pentatonic', 'D'],
  [
    'a minor tonic',
    placeOf(chordNamed('Bbm6'), null, DEFAULT_SCHOOL, { kind: 'tonic', on: '1', mode: 'minor' }),
    'Bb melodic minor',
    'Eb & F',
    'Eb',
    'F',
    'Bb minor 6 pentatonic',
  ],
  ['a blues I', blues('G7', 'C7', 'blues I'), 'G minor blues', 'G major blues', 'G minor pentatonic', 'A'],
  ['a blues IV', blues('C7', 'G7', 'blues IV'), 'G minor blues', 'D', 'G melodic minor'],
]

describe('what can I play here', () => {
  it.each(FIRST)('over %s', (_, place, ...among) => {
    const first = shown(place)
    for (const name of among) expect(first).toContain(name)
    expect(new Set(first).size).toBe(first.length)
  })
  it('has each set once, and a sentence for each classic', () => {
    for (const row of FIRST) {
      const place = row[1]
      const ranked = rankOverlays(place, ANYTHING, DEFAULT_WEIGHTS)
      const singles = ranked.filter((r) => r.candidate.family !== 'pair').map((r) => r.candidate.set)
      expect(new Set(singles).size).toBe(singles.length)
      expect(ranked.slice(0, 2).every((r) => r.classic && r.classic.length > 15)).toBe(true)
      const uses = ranked.map((r) => r.use)
      expect([...uses].sort((a, b) => b - a)).toEqual(uses)
    }
  })
  it('is the same in every key', () => {
    for (const [symbol, next] of [
      ['m7', '7'],
      ['7', 'maj7'],
      ['7alt', 'm7'],
      ['m7b5', '7'],
    ] as const) {
      const formulas = (root: string, goal: string) =>
        rankOverlays(placeNamed(root + symbol, goal + next), ANYTHING, DEFAULT_WEIGHTS)
          .slice(0, 12)
          .map((r) => r.use.toFixed(3))
      for (const [root, goal] of [
        ['Bb', 'Eb'],
        ['F#', 'B'],
        ['E', 'A'],
        ['Ab', 'Db'],
      ] as const)
        expect(formulas(root, goal)).toEqual(formulas('C', 'F'))
    }
  })
})

describe('the plainest spelling', () => {
  const named = (place: Place, pc: number, name: Parameters<typeof materialNamed>[0]): string => {
    const material = materialNamed(name)
    return placeOn(generatedRoot(pitchClass(pc), homeOverlay(place.home.first).notes, material), material)
      .notes.map((n) => n.name)
      .join(' ')
  }
  it.each([
    ['F over B7alt', placeNamed('B7alt'), 5, '', 'F A C'],
    ['Cm over F#7b9', placeNamed('F#7b9'), 0, 'm', 'C Eb G'],
    ['Bb minor pentatonic over G7b9', placeNamed('G7b9'), 10, 'minor pentatonic', 'Bb Db Eb F Ab'],
    ['Db over G7b9', placeNamed('G7b9'), 1, '', 'Db F Ab'],
    ['C#m over A7', placeNamed('A7'), 1, 'm', 'C# E G#'],
    ['G#m over E7', placeNamed('E7'), 8, 'm', 'G# B D#'],
    ['Abm over Eb7', placeNamed('Eb7'), 8, 'm', 'Ab Cb Eb'],
    ['F# dim7 over Gb6', placeNamed('Gb6'), 6, 'dim7 arpeggio', 'F# A C Eb'],
    ['G# dim7 over Abm6', placeNamed('Abm6'), 8, 'dim7 arpeggio', 'G# B D F'],
    ['Bb+ over D7#5', placeNamed('D7#5'), 10, '+', 'Bb D F#'],
    ['Gbmaj7 over Db', placeNamed('Dbmaj7'), 6, 'maj7 arpeggio', 'Gb Bb Db F'],
    ['B major pentatonic over Cb', placeNamed('Cbmaj7'), 11, 'major pentatonic', 'B C# D# F# G#'],
  ] as const)('%s', (_, place, pc, name, notes) => {
    expect(named(place, pc, name)).toBe(notes)
  })
  const HARD = ['E#', 'B#', 'Cb', 'Fb']
  it('has no hard root and no double accidental where a plain name exists, whatever it lies over', () => {
    for (const chord of ['B7alt', 'F#7b9', 'Gb6', 'Abm7', 'C#maj7', 'Ebm6', 'D7#5', 'G#m7b5', 'Cb7', 'E+'])
      for (const c of candidatesOver(placeNamed(chord), ['triad', 'seventh', 'pentatonic'])) {
        const { root, notes, name } = c.overlay()
        expect(HARD, `${name} over ${chord}`).not.toContain(root.name)
        const plain = Array.from('CDEFGAB').some((letter) =>
          ['', 'b', '#'].some((sign) => {
            const other = overlayNamed(letter + sign).root
            const usable = c.material && other.pc === root.pc && !HARD.includes(other.name)
            const there = usable && c.material ? placeOn(other, c.material).notes : null
            return there?.every((n) => Math.abs(n.alter) < 2)
          }),
        )
        if (plain)
          expect(
            notes.every((n) => Math.abs(n.alter) < 2),
            `${name} over ${chord}`,
          ).toBe(true)
      }
  })
})

/** `note degree role fade`, with ! for a rub and ~ for blue. */
const notesOver = (overlay: string, place: Place): string =>
  readOver(overlayNamed(overlay), place)
    .notes.map((n) => `${n.note.name} ${n.degree} ${n.role} ${n.fade}${n.rub ? '!' : ''}${n.blue ? '~' : ''}`)
    .join(', ')

describe('readings in context', () => {
  it.each([
    [
      'C minor blues',
      blues('C7', 'F7', 'blues I'),
      'C 1 chord 0, Eb #9 altered 30~, F 11 suspension 30, Gb #11 altered 30~, G 5 chord 0, Bb b7 chord 0~',
    ],
    ['Eb', blues('Bb7', 'F7', 'blues IV'), 'Eb 11 suspension 30~, G 13 extension 20, Bb 1 chord 0'],
    ['Ab C', blues('Bb7', 'F7', 'blues IV'), 'Ab b7 chord 0~, C 9 extension 15'],
    ['B', blues('C7', 'F7', 'blues V'), 'B 7 outside 30~, D# #9 altered 30~, F# #11 altered 35'],
    [
      'G minor blues',
      placeNamed('E7', 'Dmaj7'),
      'G #9 altered 45, Bb #11 altered 30~, C b13 outside 70, Db 13 extension 20~, D b7 chord 0, F b9 outside 30~',
    ],
    ['B', placeNamed('Cm7', 'Bbmaj7'), 'B 7 outside 60, D# b3 chord 0, F# #11 outside 70'],
    ['F# A', placeNamed('Gm7', 'C7'), 'F# 7 outside 60, A 9 extension 15'],
    [
      'E',
      placeOf(chordNamed('Fm7'), null, DEFAULT_SCHOOL, { kind: 'tonic', on: '1', mode: 'minor' }),
      'E 7 outside 45, G# b3 chord 0, B #11 outside 70',
    ],
    ['F#', placeNamed('C7sus4', 'Fmaj7'), 'F# #11 outside 95!, A# b7 chord 0, C# b9 altered 50'],
    ['D# G#', placeNamed('C7sus4', 'Fmaj7'), 'D# #9 outside 70, G# b13 outside 70'],
    ['Ab', placeNamed('Cmaj7', 'Fmaj7'), 'Ab b13 outside 70, C 1 chord 0, Eb #9 outside 95!'],
    ['Gb', placeNamed('Cm7', 'F7'), 'Gb #11 outside 70, Bb b7 chord 0, Db b9 outside 85!'],
    ['A', placeNamed('Bb/C', 'Fmaj7'), 'A 13 extension 20, C# b9 altered 50, E 3 suspension 30'],
  ] as const)('%s', (overlay, place, notes) => {
    expect(notesOver(overlay, place)).toBe(notes)
  })
  it('the next chord’s root that sounds already is home; its half step into the 7 comes after', () => {
    for (const [note, chord, next, leading] of [
      ['C', 'G7', 'Cmaj7', 'B'],
      ['Eb', 'Bb7', 'Ebmaj7', 'D'],
      ['A', 'E7', 'Amaj7', 'G#'],
      ['F#', 'C#7', 'F#maj7', 'E#'],
    ] as const) {
      const [n] = readOver(overlayNamed(`${note} ${note}`), placeNamed(chord, next)).notes
      expect(n?.exits.slice(0, 2).map((e) => [e.how, e.to.name, e.strength])).toEqual([
        ['held', note, 0.45],
        ['half step down', leading, 0.3],
      ])
    }
  })
})
