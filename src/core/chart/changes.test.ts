import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { bandOver } from '../band/band.ts'
import { beatsOfBars, swungNotes } from '../band/swing.ts'
import { UNISON } from '../pitch/transpose.ts'
import { barsAt } from '../time/bars.ts'
import { beatAt, isStrongAt, soundingAt } from '../time/timeline.ts'
import { transposeChart, transposeChartText } from '../transpose/chart.ts'
import { readTune } from '../tune.ts'
import { barTicks, beatOf, beatsOf, keyName, metreName, spotsOf } from './chart.ts'
import { jobName } from './job.ts'
import { printChart } from './print-chart.ts'
import { readChart } from './read-chart.ts'

const tune = (text: string) => {
  const read = readTune(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const metresOf = (text: string): string =>
  tune(text)
    .chart.bars.map((b) => metreName(b.metre))
    .join(' ')

describe('a metre that changes', () => {
  it.each([
    ['metre = 3/4\n| C | F |\nmetre = 5/4\n| G |', '3/4 3/4 5/4'],
    ['| C | 3/4 F | G | 4/4 C |', '4/4 3/4 3/4 4/4'],
    ['7/8 | C | F |', '7/8 7/8'],
    ['| C | 6/8 | F |', '4/4 6/8'],
    ['| C 2/4 | F |', '4/4 2/4'],
    ['| 3/4 C | F 2/4 | G |', '3/4 3/4 2/4'],
    ['metre = 5/4\n|: C |1. 3/4 F :|2. 4/4 G |', '5/4 3/4 5/4 4/4'],
    ['|: 3/4 | C | F :| 4/4 | G |', '3/4 3/4 3/4 3/4 4/4'],
    ['|: C | F | 3/4 :| G |', '4/4 4/4 4/4 4/4 3/4'],
    ['| C |\r\n== B\r\nmetre = 12/8\r\n| F |\r\n', '4/4 12/8'],
    ['| C | // 3/4\n| F |', '4/4 4/4'],
  ])('%j is %s', (text, expected) => expect(metresOf(text)).toBe(expected))

  it('begins a chart too: its tempo and its pickup are in beats of that', () => {
    const { chart } = tune('pickup = 1\n6/8 | C | F |')
    expect([metreName(chart.metre), barsAt(chart).map((b) => b.to - b.from)]).toEqual(['6/8', [480, 2880]])
  })

  it.each([
    ['| C | 3/4 % |', '2.1 C 3'],
    ['| C F | 6/8 % |', '2.1 C 3 2.4 F 3'],
    ['pickup = 2\n| C F | % |', '1.1 C 2 1.3 F 2'],
  ])('a bar that repeats the one before fills its own: %s', (text, expected) => {
    const last = tune(text).chart.bars.at(-1)
    expect(last?.spots.map((s) => `${s.bar}.${beatOf(s)} ${s.chord.symbol} ${beatsOf(s)}`).join(' ')).toBe(expected)
  })

  it.each([
    ['| C | 9/1 F |', 6, '9/1'],
    ['| C:3 F:1 | 3/4 % |', 16, '%'],
    ['| C | 3/4 F:4 |', 10, 'F:4'],
    ['| C 0/4 | F |', 4, '0/4'],
    ['| C |\nmetre = x\n| F |', 14, 'x'],
    ['| C 3/4 F |', 4, '3/4'],
  ])('%j is refused at %i', (text, at, found) => {
    const read = readChart(text)
    expect(read.ok ? 'read' : [read.error.at, text.slice(at).startsWith(found)]).toEqual([at, true])
  })

  const METRES = ['4/4', '3/4', '5/4', '7/8', '6/8', '2/2', '11/16']
  const KEYS = [null, 'Eb major', 'F# minor', 'C major']
  const bars = fc.array(
    fc.record({
      metre: fc.constantFrom(...METRES),
      key: fc.constantFrom(...KEYS),
      chords: fc.constantFrom('Dm7', 'G7 C6', 'F#m7b5 B7b9 Em6', 'N.C.', 'Dm7:1 G7'),
      section: fc.boolean(),
    }),
    { minLength: 1, maxLength: 9 },
  )
  const textOf = (all: readonly { metre: string; key: string | null; chords: string; section: boolean }[]): string =>
    all
      .map(
        (b, i) =>
          `${b.section ? `== ${i}\n` : ''}${b.key ? `key = ${b.key}\n` : ''}${i % 2 ? `metre = ${b.metre}\n| ` : `| ${b.metre} `}${b.chords} |`,
      )
      .join('\n')

  it('prints and reads back to the same bars, in any key', () => {
    fc.assert(
      fc.property(bars, fc.integer({ min: -6, max: 6 }), (all, semitones) => {
        const text = textOf(all)
        const { chart } = tune(text)
        const printed = printChart(chart)
        const again = tune(printed).chart
        const told = (c: typeof chart) =>
          c.bars.map((b) => [
            metreName(b.metre),
            b.key && keyName(b.key),
            b.spots.map((s) => [s.at, s.length, s.chord.symbol]),
          ])
        expect(told(again)).toEqual(told(chart))
        expect(printChart(again)).toBe(printed)
        const by = semitones === 0 ? UNISON : { semitones, letters: Math.round((semitones * 7) / 12) }
        expect(told(tune(transposeChartText(text, chart, by)).chart)).toEqual(told(transposeChart(chart, by)))
      }),
      { numRuns: 300 },
    )
  })

  it('each bar is as long as its metre, begins where the one before ends, and its beats are counted from its beginning', () => {
    fc.assert(
      fc.property(bars, (all) => {
        const { chart, timeline } = tune(textOf(all))
        let from = 0
        for (const [i, bar] of barsAt(chart).entries()) {
          expect([metreName(bar.metre), bar.from, bar.to]).toEqual([all[i]?.metre, from, from + barTicks(bar.metre)])
          for (let beat = 1; beat <= bar.metre.beats; beat++) {
            const at = from + ((beat - 1) * 3840) / bar.metre.unit
            expect(beatAt(at, soundingAt(timeline, at))).toBe(beat)
          }
          expect(isStrongAt(from, timeline)).toBe(true)
          from = bar.to
        }
        expect(timeline.length).toBe(from)
      }),
      { numRuns: 200 },
    )
  })

  it('is followed by the band: a click on each beat of each bar, the ride by the metre of its bar, swing by its beats', () => {
    const { chart, timeline } = tune('| C | 7/8 F | 3/4 G | 4/4 C |')
    const band = bandOver(chart, timeline, 'swing', { from: 0, to: timeline.length })
    const clicks = band.filter((n) => n.part === 'click')
    expect(clicks.filter((n) => n.loudness > 0.8).map((n) => n.at)).toEqual([0, 3840, 7200, 10_080])
    expect(clicks).toHaveLength(4 + 7 + 3 + 4)
    const ride = band.filter((n) => n.part === 'ride' && n.at >= 7200 && n.at < 10_080).map((n) => n.at - 7200)
    expect(ride).toEqual([0, 960, 1440, 1920])
    const eighths = [0, 480, 960, 1440].map((at) => ({ at: 7200 + at, for: 480 }))
    const swung = swungNotes(eighths, beatsOfBars(timeline), { swung: 'eighths', amount: 60 })
    expect(swung.map((n) => n.at - 7200)).toEqual([0, 576, 960, 1536])
  })

  it('a pickup of half a beat swings into the first bar, not against it', () => {
    const { timeline } = tune('pickup = 0.5\n| N.C. | C |')
    const swung = swungNotes(
      [
        { at: 480, for: 480 },
        { at: 960, for: 480 },
      ],
      beatsOfBars(timeline),
      {
        ...{ swung: 'eighths', amount: 60 },
      } as const,
    )
    expect(swung.map((n) => n.at)).toEqual([480, 1056])
  })

  it('changes nothing in what the chords do', () => {
    const chords = ['Dm7', 'G7', 'C6', 'A7', 'Dm7', 'Db7', 'Cmaj7', 'C6']
    const jobs = (text: string) => tune(text).analysis.spots.map((s) => s.job && jobName(s.job))
    const plain = jobs(`| ${chords.join(' | ')} |`)
    expect(jobs(`| ${chords.map((c, i) => `${METRES[i % 3]} ${c}`).join(' | ')} |`)).toEqual(plain)
  })
})

describe('a key that changes', () => {
  const keysOf = (text: string) => tune(text).analysis.spots.map((s) => s.key && keyName(s.key))
  it('is taken at its word from its bar on', () => {
    expect(keysOf('key = C\n| Dm7 | G7 |\nkey = Bb\n| Eb6 | Bb6 |')).toEqual([
      ...['C major', 'C major', 'Bb major', 'Bb major'],
    ])
    const jobs = tune('key = F\n| Gm7 | Bb6 |\nkey = D minor\n| Gm7 | Dm6 |').analysis.spots.map((s) => s.degree)
    expect(jobs).toEqual(['2', '4', '4', '1'])
  })
  it('a repeat goes back to the key it began in', () => {
    const { chart } = tune('key = C\n|: C6 |\nkey = Ab\n| Ab6 :|')
    expect(chart.bars.map((b) => b.key && keyName(b.key))).toEqual(['C major', 'Ab major', 'C major', 'Ab major'])
  })
  it('a chart that names none at its beginning still finds the first', () => {
    expect(keysOf('| Dm7 | G7 | C6 | C6 |\nkey = Ab\n| Ab6 | Db6 |')).toEqual([
      ...['C major', 'C major', 'C major', 'C major', 'Ab major', 'Ab major'],
    ])
    expect(spotsOf(tune('| C |\nkey = Ab\n| Ab6 |').chart)).toHaveLength(2)
  })
})
