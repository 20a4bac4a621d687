import { plainKey } from './items.ts'
import { dayName, dayOf, isClean, type LogEntry } from './log.ts'

/** What was done on one day, days without practice among them. */
export interface Day {
  readonly day: string
  readonly minutes: number
  readonly rounds: number
  /** Share of clean rounds, 0 to 1; null where none was graded. */
  readonly clean: number | null
}

/** Every day from the first of the log to the last asked for, `zone` in minutes east of Greenwich. */
export const daysOf = (log: readonly LogEntry[], from: number, to: number, zone: number): readonly Day[] => {
  const [first, last] = [dayOf(from, zone), dayOf(to, zone)]
  const sums = Array.from({ length: Math.max(0, last - first + 1) }, () => ({ minutes: 0, rounds: 0, clean: 0 }))
  for (const { at, minutes, grade } of log) {
    const sum = sums[dayOf(at, zone) - first]
    if (!sum) continue
    sum.minutes += minutes ?? 0
    if (grade === null) continue
    sum.rounds++
    if (isClean(grade)) sum.clean++
  }
  return sums.map(({ minutes, rounds, clean }, i) => ({
    ...{ day: dayName(first + i), minutes, rounds },
    clean: rounds === 0 ? null : clean / rounds,
  }))
}

/** The tempo a card was played at, time after time. */
export interface TempoPoint {
  readonly at: number
  readonly tempo: number
  readonly clean: boolean
}

export const tempoCourse = (log: readonly LogEntry[], itemId: string, key: string): readonly TempoPoint[] =>
  log
    .flatMap((e) =>
      e.itemId === itemId && e.key !== null && plainKey(e.key) === key && e.tempo !== null && e.grade !== null
        ? [{ at: e.at, tempo: e.tempo, clean: isClean(e.grade) }]
        : [],
    )
    .sort((a, b) => a.at - b.at)

/** What was taken for what in the quiz: so many times, of so many that it was asked. */
export interface Confusion {
  readonly topic: string
  readonly right: string
  readonly given: string
  readonly times: number
  readonly asked: number
}

const LEAST_TIMES = 2

/** The confusions of a quiz, most often first; what happened once is no confusion. */
export const confusionsIn = (log: readonly LogEntry[]): readonly Confusion[] => {
  const asked = new Map<string, number>()
  const taken = new Map<string, Confusion>()
  for (const { answered } of log) {
    if (!answered) continue
    const { topic, right, given } = answered
    const of = `${topic} ${right}`
    asked.set(of, (asked.get(of) ?? 0) + 1)
    if (given === right) continue
    const pair = `${of} ${given}`
    taken.set(pair, { topic, right, given, times: (taken.get(pair)?.times ?? 0) + 1, asked: 0 })
  }
  return [...taken.values()]
    .filter((c) => c.times >= LEAST_TIMES)
    .map((c) => ({ ...c, asked: asked.get(`${c.topic} ${c.right}`) ?? 0 }))
    .sort((a, b) => b.times - a.times)
}
