// Practice: today's list, coverage and the course from twenty thousand entries of the log; the least of several, in milliseconds.
import {
  cardsOf,
  coverageOf,
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  daysOf,
  GRADES,
  type LogEntry,
  type PracticeItem,
  planIn,
  readTakeOver,
  readTune,
  simulatedTake,
  TIDY,
  todayList,
} from '../../src/core/index.ts'
import { MEMORY } from '../../src/memory/memory.ts'
import { seeded } from './seeded.ts'

const ENTRIES = 20_000
const ITEMS = 24
const ROUNDS = 12
const HOUR_MS = 3_600_000
const KEYS = ['C', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'F#', 'B', 'E', 'A', 'D', 'G']

const items = Array.from(
  { length: ITEMS },
  (_, i): PracticeItem => ({
    ...{ id: `i${i}`, name: `Item ${i}`, keys: 'fourths', tempo: { from: 60, to: 120, step: 4 } },
    of: { kind: 'overlay', overlay: 'B minor pentatonic', chord: 'Eb7' },
  }),
)
const log = Array.from(
  { length: ENTRIES },
  (_, i): LogEntry => ({
    at: i * HOUR_MS,
    kind: 'round',
    itemId: `i${(i * 7) % ITEMS}`,
    key: KEYS[(i * 5) % 12] ?? 'C',
    tempo: 60 + (i % 40),
    grade: GRADES[i % 4] ?? 'clean',
    minutes: 2,
  }),
)
const now = ENTRIES * HOUR_MS

const least = (work: () => unknown): string =>
  Math.min(
    ...Array.from({ length: ROUNDS }, () => {
      const from = performance.now()
      work()
      return performance.now() - from
    }),
  ).toFixed(1)

const cardsNow = () => cardsOf(items, log, MEMORY, now, () => 0.5)
const today = () => todayList({ items, log, cards: cardsNow(), minutes: 25, now, zone: 0, model: MEMORY })
console.log(`from ${ENTRIES} entries, ${ITEMS} items in twelve keys:`)
console.log(`  today's list, cards and all: ${least(today)} ms (at most 50)`)
console.log(`  coverage: ${least(() => coverageOf(items, log))} ms`)
console.log(`  a year day by day: ${least(() => daysOf(log, now - 365 * 24 * HOUR_MS, now, 0))} ms`)

const chart = readTune(
  '| Dm7 G7 | Cmaj7 A7alt | Bbm7 Eb7 | F#m7b5 B7 | Em7 | A7 | Dmaj7 | % |'.repeat(4).replaceAll('||', '|'),
)
if (!chart.ok) throw new Error('the chart does not read')
const judges = { school: DEFAULT_SCHOOL, weights: DEFAULT_WEIGHTS }
const plan = {
  overlays: [1, 5, 9, 13, 17, 21, 25, 29].map((bar, i) => ({
    bar,
    beat: 1,
    overlay: i % 2 ? 'F minor pentatonic' : null,
  })),
}
const laid = planIn(chart.value.chart, plan)
const how = {
  plan: laid.ok ? laid.value : [],
  tempo: 140,
  manner: TIDY,
  fault: null,
  range: [55, 81] as const,
  ...judges,
}
const notes = simulatedTake(how, chart.value.timeline, seeded(4)) ?? []
const take = { notes, plan, bars: null, tempo: 140, offset: 0 }
console.log(
  `a take of 32 bars, ${notes.length} notes, read: ${least(() => readTakeOver(chart.value, take, judges))} ms (at most 150)`,
)
