import { describe, expect, it } from 'vitest'
import { analyseChart } from './analyse.ts'
import { condense, expand } from './condensed.ts'
import { checkChart, readChart } from './read-chart.ts'

const times = (text: string, n: number): string => text.repeat(n)

/** [what, text, what could stand there, or null where it is taken]. */
const TEXTS: readonly (readonly [string, string, string | null])[] = [
  ['as many bars as there may be', times('| C ', 2000), null],
  ['a bar more', times('| C ', 2001), 'at most 2,000 bars'],
  ['as many as they are played', `|: ${times('C |', 999)} C :|`, null],
  ['more as they are played', `|: ${times('C |', 1000)} C :|`, 'at most 2,000 bars as played'],
  ['as many chords as there may be', times('| C F ', 2000), null],
  ['more of them', times('| C F G ', 1400), 'at most 4,000 chords as played'],
  ['more by repeated bars', `| ${times('C ', 60)}|${times('%|', 100)}`, 'at most 4,000 chords as played'],
  ['as many in a bar', `| ${times('C ', 64)}|`, null],
  ['one more', `| ${times('C ', 65)}|`, 'at most 64 chords in a bar'],
]

describe('a chart that is too long', () => {
  it.each(TEXTS)('%s', (_, text, expected) => {
    const read = readChart(text)
    expect(read.ok ? null : read.error.expected[0]).toBe(expected)
  })
  it('is told where it goes on, and no further', () => {
    const { chart, errors } = checkChart(`title = Weir\n${times('| H ', 5000)}`)
    expect(chart).toBeNull()
    expect(errors.length).toBeGreaterThan(100)
    const past = readChart(`| ${times('C ', 64)}F |`)
    expect(past.ok || past.error.at).toBe(2 + 64 * 2)
  })
})

it('names and comments may hold anything', () => {
  const { chart, errors } = checkChart(`title =  a = b // c\r\n== Upper = deck ==\n| C | // F |\r\n// |\r//\n| G |`)
  expect(errors).toEqual([])
  expect([chart?.title, chart?.bars.map((b) => [b.section, b.spots[0]?.chord.symbol])]).toEqual([
    'a = b',
    [
      ['Upper = deck', 'C'],
      [null, 'G'],
    ],
  ])
})

const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value))

it('an analysis that was sent is the same again', () => {
  const texts = [
    '| Dm7 G7 | Cmaj7 | Ebm7 Ab7 | Dbmaj7 |',
    'key = F minor\n| Gm7b5 | C7b9 | Fm6 | N.C. | Db/C | C7 Ebdim7 |',
    '| C7 | F7 | C7 | % | F7 | F#dim7 | C7 | A7 | Dm7 | G7 | C7 A7 | Dm7 G7 |',
  ]
  for (const text of texts)
    for (const repeats of [true, false]) {
      const read = readChart(text)
      if (!read.ok) throw new Error(text)
      const said = [{ bar: 1, beat: 1, split: 2, job: { kind: 'tonic' as const } }]
      for (const overrides of [[], said]) {
        const found = analyseChart(read.value, repeats, overrides)
        const sent = JSON.parse(JSON.stringify(condense(found)))
        expect(plain(expand(sent, read.value, repeats, overrides))).toEqual(plain(found))
      }
    }
})
