import { expect, test } from 'vitest'
import {
  analyseChart,
  DEFAULT_SCHOOL,
  lineOf,
  midi,
  readChart,
  type Span,
  spanOfBars,
  swingOf,
  ticks,
  timelineOf,
} from '../core/index.ts'
import { CHANNELS, loudnessOf, type Mix, scoreOf, secondsPerTick } from './score.ts'

const read = readChart('tempo = 120\n| Dm7 | G7 | Cmaj7 | % |')
if (!read.ok) throw new Error('no chart')
const chart = read.value
const timeline = timelineOf(chart, analyseChart(chart, true), [], DEFAULT_SCHOOL)
const note = (at: number, length: number, pitch: number) => ({ at: ticks(at), for: ticks(length), pitch: midi(pitch) })
const LINE = lineOf([note(480, 480, 62), note(3840, 1920, 65), note(7200, 1920, 69), note(9600, 480, 71)])
const score = (span: Span, tempo = 120) =>
  scoreOf({ chart, timeline, feel: 'swing', swing: swingOf('swing', tempo, 66), tempo, span, line: LINE })
const sung = (span: Span) => score(span).notes.filter((n) => n.part === 'line')

test('of a line only what begins within the span is played, cut at its end', () => {
  const loop = spanOfBars(chart, 2, 2)
  if (!loop) throw new Error('no bar')
  expect(sung(loop).map((n) => [n.pitch, n.at + n.for <= loop.to])).toEqual([
    [65, true],
    [69, true],
  ])
  expect(spanOfBars(chart, 9, 12)).toBeNull()
})

test('a line longer than the form is played over as many rounds of the chords', () => {
  const twice = { from: 0, to: timeline.length * 2 }
  const bass = score(twice).notes.filter((n) => n.part === 'bass')
  expect(bass.filter((n) => n.at >= timeline.length).length).toBe(bass.length / 2)
})

test('the off-beat is late by the swing, and a tick lasts as long as the tempo says', () => {
  expect(sung({ from: 0, to: 3840 })[0]?.at).toBeCloseTo(960 * 0.66)
  expect(secondsPerTick(score({ from: 0, to: 3840 })) * 960).toBeCloseTo(0.5)
  expect(secondsPerTick(score({ from: 0, to: 3840 }, 60)) * 960).toBeCloseTo(1)
})

test('what rests is silent; where any is alone, all others are', () => {
  const levels = { line: 0.5, bass: 0.4, chords: 0.3, drums: 0.2, click: 0.1 }
  const heard = (mix: Partial<Mix>) => CHANNELS.map((c) => loudnessOf({ levels, muted: [], solo: [], ...mix }, c))
  expect(heard({})).toEqual([0.5, 0.4, 0.3, 0.2, 0.1])
  expect(heard({ muted: ['bass'] })).toEqual([0.5, 0, 0.3, 0.2, 0.1])
  expect(heard({ solo: ['bass', 'click'] })).toEqual([0, 0.4, 0, 0, 0.1])
  expect(heard({ solo: ['bass'], muted: ['bass'] })).toEqual([0, 0, 0, 0, 0])
})
