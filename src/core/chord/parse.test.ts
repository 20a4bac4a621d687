import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { guidesOf, tonesOf } from './chord.ts'
import { readChord, readHarmony } from './parse.ts'

/** Written by hand: symbol, canonical form, family, tones as `name degree`, stated ones with a star. */
const CASES: readonly (readonly [string, string, string, string])[] = [
  ['C', 'C', 'major', 'C 1,E 3,G 5'],
  ['C-', 'Cm', 'minor', 'C 1,Eb b3,G 5'],
  ['F#dim', 'F#dim', 'diminished', 'F# 1,A b3,C b5'],
  ['B°', 'Bdim', 'diminished', 'B 1,D b3,F b5'],
  ['Bb+', 'Bb+', 'augmented', 'Bb 1,D 3,F# #5'],
  ['Daug', 'D+', 'augmented', 'D 1,F# 3,A# #5'],
  ['E5', 'E5', 'power', 'E 1,B 5'],
  ['Gsus2', 'Gsus2', 'suspended', 'G 1,A 2,D 5'],
  ['Gsus', 'Gsus4', 'suspended', 'G 1,C 4,D 5'],
  ['C6/9', 'C6/9', 'major', 'C 1,E 3,G 5,A 6,D 9*'],
  ['C69', 'C6/9', 'major', 'C 1,E 3,G 5,A 6,D 9*'],
  ['F-6', 'Fm6', 'minor', 'F 1,Ab b3,C 5,D 6'],
  ['AbΔ', 'Abmaj7', 'major', 'Ab 1,C 3,Eb 5,G 7'],
  ['AbM7', 'Abmaj7', 'major', 'Ab 1,C 3,Eb 5,G 7'],
  ['E♭7', 'Eb7', 'dominant', 'Eb 1,G 3,Bb 5,Db b7'],
  ['F♯-7', 'F#m7', 'minor', 'F# 1,A b3,C# 5,E b7'],
  ['C-Δ7', 'CmMaj7', 'minor', 'C 1,Eb b3,G 5,B 7'],
  ['Cm(maj7)', 'CmMaj7', 'minor', 'C 1,Eb b3,G 5,B 7'],
  ['Bø', 'Bm7b5', 'half-diminished', 'B 1,D b3,F b5,A b7'],
  ['Em7b5', 'Em7b5', 'half-diminished', 'E 1,G b3,Bb b5,D b7'],
  ['C°7', 'Cdim7', 'diminished', 'C 1,Eb b3,Gb b5,Bbb bb7'],
  ['G+7', 'G7#5', 'dominant', 'G 1,B 3,D# #5,F b7'],
  ['G7#5', 'G7#5', 'dominant', 'G 1,B 3,D# #5,F b7'],
  ['C+maj7', 'Cmaj7#5', 'augmented', 'C 1,E 3,G# #5,B 7'],
  ['D9', 'D9', 'dominant', 'D 1,F# 3,A 5,C b7,E 9*'],
  ['D11', 'D11', 'dominant', 'D 1,F# 3,A 5,C b7,E 9*,G 11*'],
  ['D13', 'D13', 'dominant', 'D 1,F# 3,A 5,C b7,E 9*,B 13*'],
  ['Dm11', 'Dm11', 'minor', 'D 1,F b3,A 5,C b7,E 9*,G 11*'],
  ['CmMaj9', 'CmMaj9', 'minor', 'C 1,Eb b3,G 5,B 7,D 9*'],
  ['Cadd9', 'Cadd9', 'major', 'C 1,E 3,G 5,D 9*'],
  ['Cmadd9', 'Cmadd9', 'minor', 'C 1,Eb b3,G 5,D 9*'],
  ['Eb13b9', 'Eb7(b9,13)', 'dominant', 'Eb 1,G 3,Bb 5,Db b7,Fb b9*,C 13*'],
  ['Eb7(13, b9)', 'Eb7(b9,13)', 'dominant', 'Eb 1,G 3,Bb 5,Db b7,Fb b9*,C 13*'],
  ['C13#11', 'C13(#11)', 'dominant', 'C 1,E 3,G 5,Bb b7,D 9*,F# #11*,A 13*'],
  ['C7#9#5', 'C7#5(#9)', 'dominant', 'C 1,E 3,G# #5,Bb b7,D# #9*'],
  ['C7b9b13', 'C7(b9,b13)', 'dominant', 'C 1,E 3,G 5,Bb b7,Db b9*,Ab b13*'],
  ['C7alt', 'C7alt', 'dominant', 'C 1,E 3,Bb b7,Db b9*,D# #9*,F# #11*,Ab b13*'],
  ['C9b5', 'C9b5', 'dominant', 'C 1,E 3,Gb b5,Bb b7,D 9*'],
  ['C7sus4b9', 'C7sus4(b9)', 'suspended', 'C 1,F 4,G 5,Bb b7,Db b9*'],
  ['Csusb9', 'C7sus4(b9)', 'suspended', 'C 1,F 4,G 5,Bb b7,Db b9*'],
  ['C13sus', 'C13sus4', 'suspended', 'C 1,F 4,G 5,Bb b7,D 9*,A 13*'],
  ['C7no3', 'C7(no3)', 'dominant', 'C 1,G 5,Bb b7'],
  ['C7omit5', 'C7(no5)', 'dominant', 'C 1,E 3,Bb b7'],
  ['F/A', 'F/A', 'major', 'F 1,A 3,C 5'],
  ['(A|Bb)', '(A|Bb)', 'major', 'Bb 1,D 3,F 5,A 7*,C# #9*,E #11*'],
]

/** Symbol, position, and the piece that is not understood. */
const WRONG: readonly (readonly [string, number, string])[] = [
  ['', 0, ''],
  ['Hm7', 0, 'Hm7'],
  ['Cmaj77', 5, '7'],
  ['Cm7x', 3, 'x'],
  ['C7(b9', 5, ''],
  ['C7(foo)', 3, 'foo'],
  ['C/H', 2, 'H'],
  ['C7b5#5', 4, '#5'],
  ['C7sus4sus2', 6, 'sus2'],
  ['(A|H)', 3, 'H'],
  ['Cdim9', 4, '9'],
]

const shown = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(`${symbol} does not read: ${JSON.stringify(read.error)}`)
  const { symbol: canonical, family } = read.value
  return [
    canonical,
    family,
    tonesOf(read.value)
      .map((t) => `${t.note.name} ${t.degree}${t.stated ? '*' : ''}`)
      .join(','),
  ]
}

describe('chord symbols', () => {
  it.each(CASES)('%s', (symbol, canonical, family, tones) => {
    expect(shown(symbol)).toEqual([canonical, family, tones])
  })

  it('prints one form, and that form reads as the same chord', () => {
    for (const [symbol] of CASES) {
      const chord = readChord(symbol)
      if (!chord.ok) throw new Error(symbol)
      expect(readChord(chord.value.symbol)).toEqual(chord)
    }
  })

  it('names the guide tones: 3 and 7, 3 and 6, 4 and 7', () => {
    const guides = (s: string) => {
      const read = readChord(s)
      return read.ok
        ? guidesOf(read.value)
            .map((n) => n.name)
            .join(' ')
        : ''
    }
    expect(['Eb7', 'C6', 'G7sus4', 'Bdim7', 'E5', 'D'].map(guides)).toEqual(['G Db', 'E A', 'C F', 'D Ab', '', 'F#'])
  })

  it.each(WRONG)('refuses %s at %i', (symbol, at, found) => {
    const read = readChord(symbol)
    expect(read.ok ? 'read' : [read.error.at, read.error.found]).toEqual([at, found])
  })

  it('knows N.C. as a bar without a chord', () => {
    expect(readHarmony('N.C.')).toEqual({ ok: true, value: { kind: 'no chord', symbol: 'N.C.' } })
  })

  it('never throws, keeps every error inside the text, and reads back what it prints', () => {
    const pieces = [
      'C',
      'Eb',
      'F#',
      'm',
      'maj7',
      '7',
      '9',
      '13',
      'b9',
      '#11',
      '(',
      ')',
      ',',
      '/',
      'sus4',
      'alt',
      'dim',
      '+',
      'ø',
      'x',
      '|',
      'H',
      '6/9',
    ]
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...pieces), { minLength: 1, maxLength: 6 }), (words) => {
        const text = words.join('')
        const read = readChord(text)
        if (read.ok) expect(readChord(read.value.symbol)).toEqual(read)
        else {
          expect(read.error.at).toBeGreaterThanOrEqual(0)
          expect(read.error.at).toBeLessThanOrEqual(text.length)
        }
      }),
      { numRuns: 5000, seed: 7 },
    )
  })
})
