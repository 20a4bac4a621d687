import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { INSTRUMENTS, instrument } from '../pitch/instrument.ts'
import { reverse } from '../pitch/transpose.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { transposeOverride } from '../transpose/chart.ts'
import { printQuestion, readQuestion } from './question.ts'
import { transposeQuestion } from './transpose-question.ts'

const understood = (text: string): string => {
  const read = readQuestion(text, DEFAULT_SCHOOL)
  return read.ok ? `${read.value.kind}: ${printQuestion(read.value)}` : `wrong at ${read.error.at}: ${read.error.found}`
}
const typedOn = (id: string, text: string): string => {
  const read = readQuestion(text, DEFAULT_SCHOOL)
  const plays = INSTRUMENTS.find((i) => i.id === id)
  if (!read.ok || !plays) throw new Error(text)
  return printQuestion(transposeQuestion(read.value, reverse(plays.written)))
}

describe('questions', () => {
  it.each([
    ['B minor pentatonic over Eb7 to Abmaj7', 'reading: B minor pentatonic over Eb7 to Abmaj7'],
    ['  b', 'wrong at 2: b'],
    ['B over D7', 'reading: B over D7'],
    ['Ab & Bb+ over Ab7', 'reading: Ab & Bb+ over Ab7'],
    ['A dim7 over A♭7 to D♭Δ', 'reading: A dim7 arpeggio over Ab7 to Dbmaj7'],
    ['slip +1 over F#m7', 'reading: G dorian over F#m7'],
    ['slip -1 over Eb7 to Abmaj7', 'reading: D mixolydian over Eb7 to Abmaj7'],
    ['Gb B C# over Eb7', 'reading: Gb B C# over Eb7'],
    [
      'D minor pentatonic over Eb7 to Abmaj7 while Ebm7 sounds',
      'reading: D minor pentatonic over Eb7 to Abmaj7 while Ebm7 sounds',
    ],
    ['E half-whole', 'material: E half-whole'],
    ['half whole on E', 'material: E half-whole'],
    ['Ebm pent over A7', 'reading: Eb minor pentatonic over A7'],
    ['E flat minor pentatonic over A7', 'reading: Eb minor pentatonic over A7'],
    ['Eb-7 pent over A7', 'reading: Eb minor pentatonic over A7'],
    ['Ab, Bb aug over Ab7', 'reading: Ab & Bb+ over Ab7'],
    ['B/A7', 'reading: B over A7'],
    ['b minor pentatonic OVER eb7 to abmaj7', 'reading: B minor pentatonic over Eb7 to Abmaj7'],
    ['E HALF-WHOLE', 'material: E half-whole'],
    ['bbm7', 'chord: Bbm7'],
    ['F/A', 'chord: F/A'],
    ['slip up a semitone over F#m7', 'reading: G dorian over F#m7'],
    ['E major pentatonic, 3 lowered over A7', 'reading: E major pentatonic, 3 lowered over A7'],
    ['pairs over Db7', 'pairs: pairs over Db7'],
    ['what holds 9 #11 over Db7 to Gb', 'overlays: what holds 9 #11 over Db7 to Gb'],
    ['Eb7(b9,13)', 'chord: Eb7(b9,13)'],
    ['| Dm7 G7 | Cmaj7 |', 'chart: | Dm7 G7 | Cmaj7 |'],
  ])('%s', (text, expected) => {
    expect(understood(text)).toBe(expected)
  })
  it.each([
    ['', 'wrong at 0: '],
    ['   ', 'wrong at 0: '],
    ['Hm7', 'wrong at 0: Hm7'],
    ['Cmaj77', 'wrong at 5: 7'],
    ['Bb foo over Eb7', 'wrong at 3: foo'],
    ['B dorian over', 'wrong at 13: '],
    ['B dorian over Eb7 to', 'wrong at 20: '],
    ['B dorian over Eb7 to Hb', 'wrong at 21: Hb'],
    ['B dorian over Eb77', 'wrong at 17: 7'],
    ['over Eb7', 'wrong at 0: '],
    ['what holds 9 foo over Db7', 'wrong at 13: foo'],
    ['B minr pentatonic over A7', 'wrong at 2: minr pentatonic'],
    ['| Dm7 | Hm7 |', 'wrong at 8: Hm7'],
  ])('refuses “%s”', (text, expected) => {
    expect(understood(text)).toBe(expected)
  })

  it.each([
    ['bb', 'F#m7', 'Em7'],
    ['bb', 'F#m7/A', 'Em7/G'],
    ['bb', 'C# dorian over F7 to Bbmaj7', 'B dorian over Eb7 to Abmaj7'],
    ['bb', '| F#m7 B7:1 | % |', '| Em7 A7:1 | % |'],
    ['eb', 'Ab & Bb+ over Ab7', 'B & C#+ over B7'],
    ['eb', '(B|C)', '(D|Eb)'],
    ['f', 'G7alt', 'C7alt'],
    ['concert', 'Gb B C# over Eb7', 'Gb B C# over Eb7'],
  ])('typed on a %s instrument, %s means concert %s', (id, text, concert) => {
    expect(typedOn(id, text)).toBe(concert)
  })

  it('suggests what was nearly typed', () => {
    const read = readQuestion('B minr pentatonic over A7', DEFAULT_SCHOOL)
    expect(read.ok ? [] : read.error.expected[0]).toBe('minor pentatonic')
  })

  it('reads back what it prints, and never throws', () => {
    const piece = fc.constantFrom(
      'B ',
      'Eb',
      'F#',
      'minor ',
      'pentatonic ',
      'dorian ',
      ' over ',
      'Eb7 ',
      ' to ',
      'Abmaj7',
      '& ',
      '+',
      '| ',
      'while ',
      'sounds',
      'half-whole',
      'slip +2',
      'x',
    )
    let read = 0
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 7 }), (pieces) => {
        const text = pieces.join('')
        const q = readQuestion(text, DEFAULT_SCHOOL)
        if (!q.ok) {
          expect(q.error.at).toBeLessThanOrEqual(text.length)
          return
        }
        read++
        const again = readQuestion(printQuestion(q.value), DEFAULT_SCHOOL)
        expect(again.ok && printQuestion(again.value)).toBe(printQuestion(q.value))
      }),
      { numRuns: 4000, seed: 3 },
    )
    expect(read).toBeGreaterThan(100)
  })
})

describe('what the player said about a chord', () => {
  it('moves with the chart: its job, its home scale; a cut stays where it is', () => {
    const said = { bar: 2, beat: 1, job: { kind: 'V', of: 'Ab', minor: false } as const, home: 'Eb altered', split: 3 }
    const up = instrument('bb').written
    expect(transposeOverride(said, up)).toEqual({ ...said, job: { ...said.job, of: 'Bb' }, home: 'F altered' })
    expect(transposeOverride(transposeOverride(said, up), reverse(up))).toEqual(said)
    expect(transposeOverride({ bar: 1, beat: 1 }, up)).toEqual({ bar: 1, beat: 1 })
  })
})
