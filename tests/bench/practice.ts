// Practice: today's list, coverage and the course from twenty thousand entries of the log; the least of several, in milliseconds.
import {
  cardsOf,
  coverageOf,
  daysOf,
  GRADES,
  type LogEntry,
  type PracticeItem,
  todayList,
} from '../../src/core/index.ts'
import { MEMORY } from '../../src/memory/memory.ts'

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
