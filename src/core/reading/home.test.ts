import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { homeName } from './home.ts'
import { placeOf } from './read.ts'
import { DEFAULT_SCHOOL, type School } from './school.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const scales = (symbol: string, to: string | null, school: Partial<School> = {}): string => {
  const { home } = placeOf(chord(symbol), to === null ? null : chord(to), { ...DEFAULT_SCHOOL, ...school })
  return [home.first, ...home.others].map(homeName).join(', ')
}

describe('the home scale', () => {
  it.each([
    ['Abmaj7', null, 'Ab ionian, Ab lydian'],
    ['Fmaj7#11', null, 'F lydian, F ionian'],
    ['Cmaj7#5', null, 'C lydian augmented, C augmented scale'],
    ['G+', null, 'G whole tone, G augmented scale, G lydian augmented'],
    ['Dm7', 'G7', 'D dorian, D aeolian'],
    ['Dm7', null, 'D dorian, D aeolian'],
    ['Dm7b9', null, 'D phrygian, D dorian, D aeolian'],
    ['F#m6', null, 'F# melodic minor, F# dorian, F# aeolian, F# harmonic minor'],
    ['BmMaj7', null, 'B melodic minor, B dorian, B aeolian, B harmonic minor'],
    ['Bm7b5', 'E7', 'B locrian natural 9, B locrian'],
    ['C#dim7', 'Dm7', 'C# whole-half, D harmonic minor'],
    ['Eb7', 'Abmaj7', 'Eb mixolydian, Eb half-whole, Eb altered, Eb lydian dominant, Eb whole tone'],
    ['Eb7', 'Ab7', 'Eb mixolydian, Eb half-whole, Eb altered, Eb lydian dominant, Eb whole tone'],
    ['Eb7', null, 'Eb mixolydian, Eb half-whole, Eb altered, Eb lydian dominant, Eb whole tone'],
    ['A7', 'Dm7', 'A phrygian dominant, A altered, A half-whole'],
    ['A7b9', 'Dm7', 'A phrygian dominant, A altered, A half-whole'],
    ['A9', 'Dm7', 'A mixolydian, A phrygian dominant, A altered, A half-whole'],
    ['A7b9', 'Dmaj7', 'A half-whole, A altered, A phrygian dominant'],
    ['A7b9b13', 'Dmaj7', 'A phrygian dominant, A altered'],
    ['F7', 'C7', 'F mixolydian, F lydian dominant, F minor blues'],
    ['Db7', 'Cmaj7', 'Db lydian dominant, Db mixolydian'],
    ['Bb7', 'Cmaj7', 'Bb lydian dominant, Bb mixolydian'],
    ['C7#11', null, 'C lydian dominant, C mixolydian'],
    ['C13b9', 'F', 'C half-whole, C altered'],
    ['C7#9', 'Fm7', 'C altered, C phrygian dominant, C half-whole'],
    ['C7#9', 'F', 'C half-whole, C altered'],
    ['C7alt', 'Fm7', 'C altered, C whole tone'],
    ['C7#5#9', 'Fm7', 'C altered, C whole tone'],
    ['C7#9b13', null, 'C altered, C whole tone'],
    ['C7#5', 'F', 'C whole tone, C altered'],
    ['C9b5', 'F', 'C whole tone, C altered, C lydian dominant'],
    ['C7sus4', 'F', 'C mixolydian, G dorian'],
    ['C7sus4b9', 'F', 'C phrygian, C dorian b2'],
    ['C5', null, 'C mixolydian without 3, C dorian, C mixolydian'],
    ['F/A', null, 'F ionian, F lydian'],
  ] as const)('%s to %s', (symbol, to, expected) => {
    expect(scales(symbol, to)).toBe(expected)
  })

  it('goes by the school where the symbol leaves it open, and not where the symbol speaks', () => {
    expect(scales('Bm7b5', null, { halfDiminished: 'locrian' })).toBe('B locrian, B locrian natural 9')
    expect(scales('Bm9b5', null, { halfDiminished: 'locrian' })).toMatch(/^B locrian natural 9/)
    expect(scales('Dm6', null, { minorTonic: 'dorian' })).toMatch(/^D dorian/)
    expect(scales('DmMaj7', null, { minorTonic: 'dorian' })).toMatch(/^D melodic minor/)
    expect(scales('G7', 'Cmaj7', { dominantHome: 'altered first' })).toMatch(/^G altered, G mixolydian/)
    expect(scales('G13', 'Cmaj7', { dominantHome: 'altered first' })).toMatch(/^G mixolydian/)
    expect(scales('Bdim7', null, { diminished: 'arpeggio' })).toMatch(/^B dim7 arpeggio/)
  })
})
