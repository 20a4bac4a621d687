// Making lines, using a lick again, fingering: each the least of several, in milliseconds.
import {
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  fingeringOf,
  lickOver,
  lineOf,
  type MakeRequest,
  makeLines,
  midi,
  placesIn,
  readChord,
  readFigure,
  readTune,
  readTuning,
  servingsOf,
  TUNINGS,
  ticks,
} from '../../src/core/index.ts'

const ROUNDS = 6
const CHANGES = '| Dm7 G7 | Cmaj7 A7 | Fm7 Bb7 | Ebmaj7 | Bm7b5 E7alt | Am7 D7 | Gm7 C7 | Fmaj7 '

const least = (work: () => unknown): number =>
  Math.min(
    ...Array.from({ length: ROUNDS }, () => {
      const from = performance.now()
      work()
      return performance.now() - from
    }),
  )

const timelineOf = (bars: number) => {
  const read = readTune(`${CHANGES.repeat(bars / 8)}|`)
  if (!read.ok) throw new Error('the chart must read')
  return read.value.timeline
}

const requestOf = (length: number, figure: string, path: MakeRequest['path']): MakeRequest => {
  const read = readFigure(figure)
  if (!read.ok) throw new Error(figure)
  return {
    ...{ plan: 'home', from: 0, to: length, figure: read.value, approach: 'none', before: 'group' },
    ...{ approachTakes: 'time before', rhythm: { value: '1/8', start: 1, rest: null }, path, wave: 4 },
    ...{ order: 'alternate', inversion: 'climb', landing: null, range: [55, 81], limit: 8 },
    ...{ school: DEFAULT_SCHOOL, weights: DEFAULT_WEIGHTS },
  }
}

console.log('eight best lines of eighths, two chords a bar (32 bars: at most 150 ms; 128 bars linear):')
for (const figure of ['1 2 3 5', '1 3 5', '1'])
  for (const path of ['free', 'up'] as const) {
    const told = [32, 128].map((bars) => {
      const timeline = timelineOf(bars)
      return `${bars} bars ${least(() => makeLines(requestOf(timeline.length, figure, path), timeline)).toFixed(0)} ms`
    })
    console.log(`  ${`${figure}, ${path}`.padEnd(14)} ${told.join(', ')}`)
  }

const lick = (() => {
  const pitches = [64, 68, 71, 74, 72, 69, 66, 64, 62, 64, 65, 68, 71, 69, 66, 64]
  const timeline = timelineOf(8)
  const line = lineOf(pitches.map((pitch, i) => ({ at: ticks(i * 240), for: ticks(240), pitch: midi(pitch) })))
  return lickOver(line, timeline)
})()
const own = readChord('Am6')
if (!own.ok) throw new Error('Am6')
const serving = least(() => servingsOf(lick, own.value, DEFAULT_SCHOOL, DEFAULT_WEIGHTS))
console.log(`a lick of 16 notes over every chord type:                ${serving.toFixed(1)} ms (at most 50)`)
const form = timelineOf(64)
const places = least(() => placesIn(lick, form, true, [40, 88], DEFAULT_WEIGHTS))
console.log(`its places in 64 bars:                                   ${places.toFixed(1)} ms (at most 100)`)
const guitar = readTuning(TUNINGS[0].strings)
if (!guitar.ok) throw new Error('guitar')
const long = Array.from({ length: 512 }, (_, i) => midi(52 + ((i * 7) % 28)))
const fingers = least(() => fingeringOf(long, guitar.value))
console.log(`512 notes fingered on six strings:                       ${fingers.toFixed(0)} ms (at most 50)`)
