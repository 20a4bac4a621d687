import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { spotsOf } from './chart.ts'
import { lineAndColumn, mendedText, proposeMend, repeatEdits } from './mend.ts'
import { printChart } from './print-chart.ts'
import { checkChart, readChart } from './read-chart.ts'

const chart = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const played = (text: string) =>
  chart(text)
    .bars.map((b) => b.spots.map((s) => s.chord.symbol).join(' '))
    .join(' | ')

describe('repeats, played out', () => {
  it.each([
    ['|: C | D :|', 'C | D | C | D'],
    ['|: C | D :| E |', 'C | D | C | D | E'],
    ['| C | D :| E |', 'C | D | C | D | E'],
    ['|: C |1. D :|2. E |', 'C | D | C | E'],
    ['|: C |1. D | F :|2. E | G | A |', 'C | D | F | C | E | G | A'],
    ['|: C |1,2. D :|3. E |', 'C | D | C | D | C | E'],
    ['|: C |1-3. D :|4. E :| F |', 'C | D | C | D | C | D | C | E | F'],
    ['|: C :|: D :|', 'C | C | D | D'],
    ['|: C |1. D :|2. E |\n|: F |1. G :|2. A |', 'C | D | C | E | F | G | F | A'],
    ['|:\nC | D\n:|', 'C | D | C | D'],
    ['|: C | % :|', 'C | C | C | C'],
  ])('%s', (text, expected) => {
    expect(played(text)).toBe(expected)
  })
  it('counts a pickup as bar 0, with its own few beats', () => {
    const c = chart('metre = 3/4\npickup = 1\n| D7 | Gmaj7 | C |')
    expect(c.bars.map((b) => [b.number, b.spots[0]?.length])).toEqual([
      [0, 960],
      [1, 2880],
      [2, 2880],
    ])
  })
})

describe('errors and what is proposed', () => {
  it.each([
    ['| Dm7 | Hm7 |', '| Dm7 | Bm7 |'],
    ['| dm7 G7 |', '| Dm7 G7 |'],
    ['| Cmaj77 |', '| Cmaj7 |'],
    ['| Cmajj7 |', '| Cmaj7 |'],
    ['| C7(b9 |', '| C7(b9) |'],
    ['| Dm7:3 G7:2 |', '| Dm7 G7 |'],
    ['| % | C |', '| N.C. | C |'],
    ['|: C | D |', '|: C | D :|'],
    ['tempoo = 90\n| C |', 'tempo = 90\n| C |'],
    ['time = 3/4\n| C |', 'metre = 3/4\n| C |'],
    ['key = H minor\n| C |', 'key = B minor\n| C |'],
    ['| C | Hm7 | F#m | Cmaj77 |', '| C | Bm7 | F#m | Cmaj7 |'],
  ])('%s', (text, expected) => {
    let now = text
    for (let error = checkChart(now).errors[0]; error; error = checkChart(now).errors[0]) {
      const mend = proposeMend(now, error)
      if (!mend) break
      now = mendedText(now, mend)
    }
    expect(now).toBe(expected)
  })
  it('tells every error, each at its line and column', () => {
    const text = 'key = Q\n| C | Hm7 |\n| Cmaj77 |'
    const at = checkChart(text).errors.map((e) => lineAndColumn(text, e.at))
    expect(at).toEqual([
      { line: 1, column: 7 },
      { line: 2, column: 7 },
      { line: 3, column: 8 },
    ])
  })
})

describe('bars selected and repeated', () => {
  it.each([
    ['| C | Dm7 | G7 |', 'Dm7', '| C |: Dm7 :| G7 |'],
    ['| C | Dm7 G7 | C |', 'C | Dm7', '|: C | Dm7 G7 :| C |'],
    ['title = x\n| C | F |', 'title', null],
    ['|: C | F :|', 'F', null],
  ])('%s', (text, selected, expected) => {
    const edits = repeatEdits(text, text.indexOf(selected), text.indexOf(selected) + selected.length)
    expect(edits && [...edits].reverse().reduce(mendedText, text)).toBe(expected)
  })
})

const chords = fc.constantFrom('C', 'Dm7', 'F#7b9', 'N.C.', '(A|Bb)', 'G/B', 'Ebmaj7#11', 'Bm7b5')
const bar = fc.oneof(
  fc.array(chords, { minLength: 1, maxLength: 4 }).map((all) => all.join(' ')),
  fc.constant('%'),
  fc.tuple(chords, chords).map(([a, b]) => `${a}:1.5 ${b}`),
)
const form = fc.array(fc.tuple(bar, fc.constantFrom('|', '|', ':|', '\n== Tide\n|', '|\n|:')), {
  minLength: 1,
  maxLength: 12,
})

describe('printed and read again', () => {
  it('any chart that reads has the same bars, beats and repeats again', () => {
    let read = 0
    fc.assert(
      fc.property(form, fc.constantFrom('4/4', '5/4', '7/8', '3/4'), fc.boolean(), (bars, metre, pickup) => {
        const text = `key = Eb minor\nmetre = ${metre}\n${pickup ? 'pickup = 1\n' : ''}| ${bars.map(([b, l]) => `${b} ${l}`).join(' ')}`
        const first = readChart(text)
        if (!first.ok) return
        read++
        const again = chart(printChart(first.value))
        const facts = (c: typeof again) => [
          c.metre,
          c.pickup,
          c.key,
          c.bars.map((b) => b.section),
          spotsOf(c).map((s) => [s.bar, s.at, s.length, s.chord.symbol]),
        ]
        expect(facts(again)).toEqual(facts(first.value))
      }),
      { numRuns: 2000, seed: 5 },
    )
    expect(read).toBeGreaterThan(500)
  })
})
