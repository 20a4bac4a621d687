import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readHarmony } from '../chord/parse.ts'
import { beatOf, beatsOf, spotsOf } from './chart.ts'
import { spotsInChart } from './context.ts'
import { jobFromNext, jobName } from './job.ts'
import { readChart } from './read-chart.ts'

const chart = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const beats = (text: string) => {
  const c = chart(text)
  return spotsOf(c).map((s) => `${s.bar}.${beatOf(s)} ${s.chord.symbol} ${beatsOf(s)}`)
}

describe('chart text', () => {
  it('shares a bar evenly, or by beats, or by slashes', () => {
    expect(beats('metre = 5/4\n| Dm7 G7 | Eb7 |')).toEqual(['1.1 Dm7 2.5', '1.3.5 G7 2.5', '2.1 Eb7 5'])
    expect(beats('| Dm7:3 G7:1 |')).toEqual(['1.1 Dm7 3', '1.4 G7 1'])
    expect(beats('| Dm7 / / G7 |')).toEqual(['1.1 Dm7 3', '1.4 G7 1'])
    expect(beats('| Dm7:3 G7 |')).toEqual(['1.1 Dm7 3', '1.4 G7 1'])
    expect(beats('metre = 6/8\n| C F | % |')).toEqual(['1.1 C 3', '1.4 F 3', '2.1 C 3', '2.4 F 3'])
  })
  it('takes headers, sections, comments, N.C. and a polychord inside brackets', () => {
    const c = chart('title = Bilge\nkey = F# minor\ntempo = 90\n== Tide\n| (A|Bb) | N.C. | // out\n| % |')
    expect([c.title, c.key?.tonic.name, c.key?.mode, c.tempo, c.bars.length]).toEqual(['Bilge', 'F#', 'minor', 90, 3])
    expect(c.bars.map((b) => [b.section, b.spots.map((s) => s.chord.symbol).join()])).toEqual([
      ['Tide', '(A|Bb)'],
      [null, 'N.C.'],
      [null, 'N.C.'],
    ])
  })
  it.each([
    ['| Dm7 | Hm7 |', 8, 'Hm7'],
    ['title = x\n| Cmaj77 |', 17, '7'],
    ['| C:3 |', 2, 'C:3'],
    ['| % |', 2, '%'],
    ['| / C |', 2, '/'],
    ['metre = 9/7\n| C |', 8, '9/7'],
    ['tempo = 900\n| C |', 8, '900'],
    ['colour = red\n| C |', 0, 'colour'],
    ['key = H\n| C |', 6, 'H'],
    ['', 0, ''],
    ['|: C | D |', 3, ''],
    ['|: C |2. D :|', 9, ''],
    ['| C | D |\ntempo = 90', 10, 'tempo'],
    ['| C | D |\npickup = 1', 10, 'pickup'],
    ['| C7(b9 |', 4, '(b9'],
  ])('refuses %j at %i', (text, at, found) => {
    const read = readChart(text)
    expect(read.ok ? 'read' : [read.error.at, text.slice(read.error.at).startsWith(found) || found === '']).toEqual([
      at,
      true,
    ])
  })
  it('fills every bar exactly, whatever stands in it', () => {
    const words = fc.array(fc.constantFrom('C', 'Dm7', 'F#7b9', 'N.C.'), { minLength: 1, maxLength: 7 })
    const metres = fc.constantFrom('4/4', '3/4', '5/4', '7/4', '6/8', '2/2')
    fc.assert(
      fc.property(words, metres, (chords, metre) => {
        const c = chart(`metre = ${metre}\n| ${chords.join(' ')} |`)
        const total = spotsOf(c).reduce((sum, s) => sum + s.length, 0)
        expect(total).toBe((c.metre.beats * 3840) / c.metre.unit)
        expect(spotsOf(c).every((s) => Number.isInteger(s.at) && Number.isInteger(s.length))).toBe(true)
      }),
    )
  })
  it('never throws, and keeps its errors inside the text', () => {
    const piece = fc.constantFrom(
      '| ',
      'C ',
      'Dm7:2 ',
      '% ',
      '\n',
      'key = ',
      'E',
      '== ',
      '/ ',
      '(',
      ')',
      'metre = 3/4',
      '// ',
      'x',
      ':',
      '=',
    )
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 20 }), (pieces) => {
        const text = pieces.join('')
        const read = readChart(text)
        if (!read.ok) expect(read.error.at).toBeLessThanOrEqual(text.length)
      }),
      { numRuns: 100_000, seed: 11 },
    )
  })
})

describe('a job as far as the next chord tells, for a question outside any chart', () => {
  it.each([
    ['F#m7', 'B7', 'ii of E'],
    ['Bm7b5', 'E7', 'ii of Am'],
    ['E7', 'Am6', 'V of Am'],
    ['Db7', 'Cmaj7', 'substitute V of C'],
    ['Bb7', 'Cmaj7', 'backdoor V of C'],
    ['G7', 'Am7', 'deceptive V of C'],
    ['F7', 'C7', 'static dominant'],
    ['F#7sus4', 'Bmaj7', 'V of B'],
    ['D#dim7', 'Em7', 'vii of Em'],
    ['Gdim7', 'F#m7', 'passing diminished to F#m'],
    ['Cdim7', 'Cmaj7', 'common-tone diminished'],
    ['Cmaj7', 'G7', 'tonic'],
    ['N.C.', 'C', 'no chord'],
    ['G7', null, null],
  ])('%s to %s', (symbol, next, expected) => {
    const [chord, after] = [symbol, next].map((s) => (s === null ? null : readHarmony(s)))
    if (!chord?.ok || after?.ok === false) throw new Error(symbol)
    const job = jobFromNext(chord.value, after?.value ?? null)
    expect(job && jobName(job)).toBe(expected)
  })
})

describe('what follows a chord', () => {
  it('is looked for through N.C., and round the corner only where the chart repeats', () => {
    const next = (text: string, repeats: boolean) =>
      spotsInChart(chart(text), repeats).map((s) => s.next?.symbol ?? '-')
    expect(next('| C | N.C. | F |', true)).toEqual(['F', 'F', 'C'])
    expect(next('| C | N.C. | F |', false)).toEqual(['F', 'F', '-'])
    expect(next('| N.C. |', true)).toEqual(['-'])
  })
})
