import { describe, expect, it } from 'vitest'
import { midi, ticks } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { auditOfWords, lineOfWords } from '../testing/lines.ts'
import { chartOfWords } from '../testing/routes.ts'
import { soundingAfter, soundingAt, timelineOf } from '../time/timeline.ts'
import { heardLine } from './heard.ts'
import { lineOf } from './line.ts'

const timelineSaid = (text: string) => {
  const { chart, analysis } = chartOfWords(text)
  return timelineOf(chart, analysis, [], DEFAULT_SCHOOL)
}
const heard = (chart: string, line: string) => heardLine(lineOfWords(line), timelineSaid(chart), DEFAULT_WEIGHTS)

describe('a note over the chord that sounds', () => {
  it.each([
    ['| Cmaj7 |', 'E4', '3', 'chord', 0],
    ['| Cmaj7 |', 'F4', '11', 'suspension', 30],
    ['| Cmaj7 |', 'F#4', '#11', 'extension', 25],
    ['| G7 | Cmaj7 |', 'Ab4', 'b9', 'altered', 50],
    ['| G7 | Cmaj7 |', 'F#4', '7', 'outside', 95],
    ['| Cm7 |', 'E4', '3', 'outside', 95],
    ['| N.C. | C7 |', 'E4', null, null, 0],
  ] as const)('over %s %s is the %s, %s, fade %d', (chart, note, degree, role, fade) => {
    const [n] = heard(chart, note)
    expect([n?.degree, n?.role, n?.fade]).toEqual([degree, role, fade])
  })
  it.each([
    ['metre = 4/4\n| C |', [1, 3]],
    ['metre = 3/4\n| C |', [1]],
    ['metre = 5/4\n| C |', [1, 4]],
    ['metre = 7/4\n| C |', [1, 5]],
  ] as const)('%j has strong beats %j', (chart, strong) => {
    const all = heard(chart, 'C4:2 C4:2 C4:2 C4:2 C4:2 C4:2 C4:2').filter((n) => n.n < timelineSaid(chart).length / 960)
    expect(all.filter((n) => n.strong).map((n) => n.beat)).toEqual(strong)
    expect(all.every((n) => n.onBeat)).toBe(true)
  })
  it('knows its bar after a pickup, in a repeat, and in a second chorus', () => {
    const line = (at: number) => lineOf([{ at: ticks(at), for: ticks(480), pitch: midi(60) }])
    const barAt = (chart: string, at: number) => {
      const [n] = heardLine(line(at), timelineSaid(chart), DEFAULT_WEIGHTS)
      return [n?.bar, n?.beat, n?.sounding?.spot.spot.chord.symbol]
    }
    expect(barAt('pickup = 1\n| G7 | Cmaj7 | Fmaj7 |', 960)).toEqual([1, 1, 'Cmaj7'])
    expect(barAt('|: Dm7 :| G7 |', 3840)).toEqual([2, 1, 'Dm7'])
    expect(barAt('| Dm7 | G7 |', 2 * 3840 + 480)).toEqual([1, 1.5, 'Dm7'])
  })
})

describe('the chart in time', () => {
  it('begins again where it ends, and looks through bars without a chord', () => {
    const timeline = timelineSaid('| Dm7 | N.C. | G7 |')
    const symbol = (at: number) => soundingAt(timeline, at)?.spot.spot.chord.symbol
    expect([0, 3840, 7680, 11520, 15360].map(symbol)).toEqual(['Dm7', 'N.C.', 'G7', 'Dm7', 'N.C.'])
    const first = soundingAt(timeline, 100)
    const after = first && soundingAfter(timeline, first)
    expect([after?.spot.spot.chord.symbol, after?.from]).toEqual(['G7', 7680])
    const last = soundingAt(timeline, 7700)
    expect(last && soundingAfter(timeline, last)?.from).toBe(11520)
  })
})

describe('notes as one voice', () => {
  it('keeps the highest of those that begin together, in order', () => {
    const n = (at: number, pitch: number, length = 480) => ({ at: ticks(at), for: ticks(length), pitch: midi(pitch) })
    expect(lineOf([n(480, 60), n(0, 62), n(0, 67), n(960, 64, 0)]).map((x) => [x.at, x.pitch])).toEqual([
      [0, 67],
      [480, 60],
    ])
  })
})

describe('small ornaments', () => {
  it.each([
    ['passing', '| Cmaj7 | % |', 'C4 D4 E4:2 G4:4', ['', 'passing', '', '']],
    ['neighbour', '| Cmaj7 | % |', 'E4 F4 E4:2 G4:4', ['', 'neighbour', '', '']],
    ['chromatic approach from below', '| Cmaj7 | % |', 'C4:2 . D#4 E4:4', ['', 'chromatic approach from below', '']],
    ['double chromatic', '| Cmaj7 | % |', 'G4:2 F4 F#4 G4:4', ['', 'double chromatic', 'double chromatic', 'target']],
    ['a scale run is no double chromatic', '| Cmaj7 | % |', 'C4 D4 E4 F4 G4:4', ['', 'passing', '', 'passing', '']],
    ['after a rest of two beats nothing leads over', '| Cmaj7 | % |', 'D#4 . . . . E4:3', ['', '']],
  ] as const)('%s', (_, chart, line, kinds) => {
    expect(auditOfWords(chart, line).melodic.map((m) => m?.kind ?? '')).toEqual(kinds)
  })
})
