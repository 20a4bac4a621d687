import fc from 'fast-check'
import { expect, test } from 'vitest'
import { analyseChart } from '../chart/analyse.ts'
import { barTicks, beatTicks, type Chart } from '../chart/chart.ts'
import { FEELS, type Feel, feelOf } from '../chart/feel.ts'
import { readChart } from '../chart/read-chart.ts'
import { guidesOf } from '../chord/chord.ts'
import { USUAL_SPELLINGS as CHORD_SPELLINGS } from '../chord/spellings.ts'
import { has } from '../pitch/pcset.ts'
import { midi, pitchClass } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { spanOfBars } from '../time/bars.ts'
import { soundingAt, timelineOf } from '../time/timeline.ts'
import { type BandPart, bandOver } from './band.ts'
import { GROOVES, groupsOf } from './groove.ts'
import { swingOf, swungAt, swungNotes } from './swing.ts'

const chartFrom = (text: string): Chart => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const played = (text: string, feel?: Feel, bars?: readonly [number, number]) => {
  const chart = chartFrom(text)
  const timeline = timelineOf(chart, analyseChart(chart, true), [], DEFAULT_SCHOOL)
  const span = bars ? spanOfBars(chart, ...bars) : { from: 0, to: timeline.length }
  if (!span) throw new Error('no such bars')
  return { chart, timeline, span, notes: bandOver(chart, timeline, feel ?? feelOf(chart), span) }
}
/** Where a part strikes, in beats from 1. */
const beats = ({ chart, notes }: ReturnType<typeof played>, part: BandPart): readonly number[] => [
  ...new Set(notes.filter((n) => n.part === part).map((n) => 1 + n.at / beatTicks(chart.metre))),
]

const ODD = 'metre = 7/4\n| Cm9 | Fm7:4 G7:3 |'
const TUNE = 'title = Hawser\n| Dm7 | G7alt | Cmaj7 | A7 Ab7 | Bm7b5/F | E7#9 | Am6 | N.C. |'

test('the signs of every groove fill whole beats and are known', () => {
  expect(FEELS.length).toBeGreaterThan(6)
  for (const feel of FEELS)
    for (const cell of [GROOVES[feel].four, GROOVES[feel].three])
      for (const [part, rows] of Object.entries(cell ?? {}))
        for (const row of rows as readonly string[]) {
          const beatsIn = row.split(' ')
          expect(beatsIn).toHaveLength(cell === GROOVES[feel].three ? 3 : 4)
          expect(beatsIn.every((b) => b.length === 4)).toBe(true)
          expect(row.replaceAll(/[ .]/g, '')).toMatch(
            part === 'bass' ? /^[158wa]*$/ : part === 'chords' ? /^[xn]*$/ : /^[xX]*$/,
          )
        }
})

test.each([
  [{ beats: 4, unit: 4 }, [4]],
  [{ beats: 3, unit: 4 }, [3]],
  [{ beats: 5, unit: 4 }, [3, 2]],
  [{ beats: 7, unit: 4 }, [4, 3]],
  [{ beats: 9, unit: 4 }, [4, 3, 2]],
  [{ beats: 9, unit: 8 }, [3, 3, 3]],
  [{ beats: 12, unit: 8 }, [3, 3, 3, 3]],
  [{ beats: 10, unit: 8 }, [4, 3, 3]],
  [{ beats: 11, unit: 8 }, [4, 4, 3]],
  [{ beats: 1, unit: 4 }, [1]],
] as const)('a bar of %j falls into groups', (metre, groups) => expect(groupsOf(metre)).toEqual(groups))

test('every metre falls into groups that fill it', () => {
  for (let n = 1; n <= 32; n++)
    for (const unit of [2, 4, 8, 16] as const) expect(groupsOf({ beats: n, unit }).reduce((a, b) => a + b, 0)).toBe(n)
})

test('bossa, waltz and seven each strike where they should', () => {
  const bossa = played('| Cmaj7 | Dm7 |', 'bossa')
  expect(beats(bossa, 'hat').filter((b) => b < 5)).toEqual([1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5])
  expect(beats(bossa, 'rim')).toEqual([2, 3.5, 5, 6.5, 8])
  expect(beats(bossa, 'bass').filter((b) => b < 5)).toEqual([1, 2.5, 3, 4.5])
  const waltz = played('metre = 3/4\n| Cmaj7 | Dm7 |')
  expect(beats(waltz, 'ride')).toEqual([1, 2, 2.5, 3, 4, 5, 5.5, 6])
  expect(beats(waltz, 'hat')).toEqual([2, 5])
  expect(beats(waltz, 'bass')).toEqual([1, 2, 3, 4, 6])
  const seven = played(ODD)
  expect(beats(seven, 'bass').filter((b) => b < 8)).toEqual([1, 2, 3, 4, 5, 6, 7])
  expect(beats(seven, 'hat').filter((b) => b < 8)).toEqual([2, 4, 6])
  expect(beats(seven, 'click')).toHaveLength(14)
})

test('the bass walks: roots where chords begin, at most a fifth at a time, by step or fifth into the next chord', () => {
  const { notes, timeline } = played(TUNE)
  const bass = notes.filter((n) => n.part === 'bass')
  for (const s of timeline.soundings) {
    const first = bass.find((n) => n.at === s.from)
    if (s.place) expect(pitchClass(first?.pitch ?? -1)).toBe(s.place.chord.bass.pc)
    else expect(bass.some((n) => n.at >= s.from && n.at < s.to)).toBe(false)
  }
  for (const [i, n] of bass.entries()) {
    expect(n.pitch).toBeGreaterThanOrEqual(28)
    expect(n.pitch).toBeLessThanOrEqual(52)
    const after = bass[i + 1]
    if (!after) continue
    expect(Math.abs(after.pitch - n.pitch)).toBeLessThanOrEqual(12)
    const changes = soundingAt(timeline, after.at)?.from === after.at && timeline.soundings[0]?.from !== after.at
    if (changes) expect([1, 2, 5, 7]).toContain(Math.min(12, Math.abs(after.pitch - n.pitch)))
  }
})

test('a loop of some bars leads back to its own first chord', () => {
  const { notes } = played('| Cmaj7 | Ebm7 | Bb7 | Emaj7 |', 'swing', [1, 2])
  const bass = notes.filter((n) => n.part === 'bass')
  const last = bass.at(-1)
  expect(last?.at).toBe(7 * 960)
  expect([1, 2, 5, 7, 10, 11]).toContain(pitchClass((last?.pitch ?? 0) - 0))
})

test('chords hold their guide tones, stay in the middle and move little', () => {
  const { notes, timeline } = played(TUNE, 'straight')
  const chords = notes.filter((n) => n.part === 'chords')
  const byTime = new Map([...new Set(chords.map((n) => n.at))].map((at) => [at, chords.filter((n) => n.at === at)]))
  let before: readonly number[] = []
  for (const [at, chord] of byTime) {
    const sounding = soundingAt(timeline, at)?.place?.chord
    const pitches = chord.map((n) => n.pitch)
    if (sounding) for (const g of guidesOf(sounding)) expect(pitches.map(pitchClass)).toContain(g.pc)
    expect(Math.min(...pitches)).toBeGreaterThanOrEqual(50)
    expect(Math.max(...pitches)).toBeLessThanOrEqual(70)
    for (const p of before.length > 0 ? pitches : [])
      expect(Math.min(...before.map((q) => Math.abs(p - q)))).toBeLessThanOrEqual(7)
    expect(pitches.some((p) => pitches.includes(midi(p + 1)))).toBe(false)
    before = pitches
  }
})

test('an anticipation sounds the chord that comes, at the end of a loop its first', () => {
  const { notes } = played('| Cmaj7 | F#7 |', 'bossa')
  const early = notes.filter((n) => n.part === 'chords' && n.at === 7.5 * 960)
  expect(early.map((n) => pitchClass(n.pitch)).sort()).toEqual([11, 4, 7])
})

test('fifths are the chord’s own', () => {
  const { notes } = played('| Cm7b5 | Gaug |', 'bossa')
  const fifths = notes.filter((n) => n.part === 'bass' && (n.at === 2 * 960 || n.at === 6 * 960))
  expect(fifths.map((n) => pitchClass(n.pitch))).toEqual([6, 3])
})

test('eighths swing and triplets stay; order is kept; nothing swings in bossa', () => {
  const swing = swingOf('swing', 120, 67)
  expect(swungAt(480, 960, swing)).toBeCloseTo(643.2)
  expect(swungAt(640, 960, swing)).toBe(640)
  expect(swungAt(960, 960, swing)).toBe(960)
  expect(swingOf('swing', 300, null).amount).toBeLessThan(swingOf('swing', 110, null).amount)
  expect(swungAt(480, 960, swingOf('bossa', 140, 70))).toBe(480)
  expect(swungAt(240, 960, swingOf('funk', 100, 60))).toBeCloseTo(288)
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 64 }), fc.integer({ min: 50, max: 75 }), (n, amount) => {
      const at = swungAt(n * 240, 960, { swung: 'eighths', amount })
      expect(swungAt((n + 1) * 240, 960, { swung: 'eighths', amount })).toBeGreaterThan(at)
    }),
  )
  const [note] = swungNotes([{ at: 480, for: 480 }], () => ({ from: 0, beat: 960 }), swing)
  expect((note?.at ?? 0) + (note?.for ?? 0)).toBeCloseTo(960)
})

test('any chart in any feel gives notes within its span, none shorter than nothing', () => {
  const chord = fc.constantFrom('C', 'F#m7b5', 'Bb13', 'Ebsus4', 'C5', 'N.C.', 'D/F#', 'Gaug', 'Adim7', 'Db7alt')
  const metre = fc.constantFrom('4/4', '3/4', '5/4', '7/8', '6/8', '12/8', '2/2', '1/4')
  fc.assert(
    fc.property(
      fc.array(chord, { minLength: 1, maxLength: 9 }),
      metre,
      fc.constantFrom(...FEELS),
      (chords, m, feel) => {
        const { notes, span, chart } = played(`metre = ${m}\n| ${chords.join(' | ')} |`, feel)
        for (const n of notes) {
          expect(n.at >= span.from && n.at < span.to).toBe(true)
          expect(n.for).toBeGreaterThan(0)
        }
        expect(notes.filter((n) => n.part === 'click')).toHaveLength(
          (span.to / barTicks(chart.metre)) * chart.metre.beats,
        )
      },
    ),
    { numRuns: 60 },
  )
})

test('a pickup takes the end of the groove’s bar', () => {
  const { notes } = played('pickup = 1\n| G7 | Cmaj7 |', 'swing')
  expect(notes.filter((n) => n.part === 'hat').map((n) => n.at)).toEqual([0, 960 * 2, 960 * 4])
  expect(notes.filter((n) => n.part === 'bass').length).toBe(5)
})

test('the home scale holds what the bass passes through', () => {
  const { notes, timeline } = played('| Dm7 | % | % | G7 |')
  for (const n of notes.filter((b) => b.part === 'bass' && b.at < 2 * 3840)) {
    const place = soundingAt(timeline, n.at)?.place
    expect(place && has(place.home.inside, pitchClass(n.pitch - place.chord.root.pc))).toBe(true)
  }
})

test('every kind of chord on every root is comped and walked: guide tones there, roots below, all in range', () => {
  expect(CHORD_SPELLINGS.length).toBeGreaterThan(30)
  const roots = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
  for (const suffix of CHORD_SPELLINGS) {
    const bars = roots.map((r) => `${r}${suffix}`).join(' | ')
    const { notes, timeline } = played(`| ${bars} |`, 'straight')
    for (const s of timeline.soundings) {
      const chord = s.place?.chord
      const here = notes.filter((n) => n.at >= s.from && n.at < s.to)
      const comped = here.filter((n) => n.part === 'chords').map((n) => pitchClass(n.pitch))
      const first = here.find((n) => n.part === 'bass')
      if (!chord) continue
      expect(comped.length, chord.symbol).toBeGreaterThan(0)
      for (const g of guidesOf(chord)) expect(comped, chord.symbol).toContain(g.pc)
      expect(pitchClass(first?.pitch ?? -1), chord.symbol).toBe(chord.bass.pc)
    }
  }
})
