/** How a round went, from worst to best; the pedal says `clean` and `again`. */
export const GRADES = ['again', 'hard', 'clean', 'easy'] as const
export type Grade = (typeof GRADES)[number]
export const isClean = (grade: Grade): boolean => grade === 'clean' || grade === 'easy'

export const LOG_KINDS = ['round', 'quiz', 'take', 'word'] as const
export type LogKind = (typeof LOG_KINDS)[number]

/** What was asked in a quiz, what was right and what was answered. */
export interface Answered {
  readonly topic: string
  readonly right: string
  readonly given: string
}

/** One entry of the log. `at` in milliseconds since 1970; `key` a note name, of a quiz its topic; `tempo` in beats a minute. */
export interface LogEntry {
  readonly at: number
  readonly kind: LogKind
  readonly itemId: string | null
  readonly key: string | null
  readonly tempo: number | null
  readonly grade: Grade | null
  readonly minutes: number | null
  readonly text?: string | null
  readonly answered?: Answered | null
}

export const DAY_MS = 86_400_000
export const daysBetween = (from: number, to: number): number => (to - from) / DAY_MS

/** The number of the day a moment lies in; `zone` in minutes east of Greenwich. */
export const dayOf = (at: number, zone: number): number => Math.floor((at + zone * 60_000) / DAY_MS)
/** The first moment of a day, by its number. */
export const startOfDay = (day: number, zone: number): number => day * DAY_MS - zone * 60_000
/** A day as it is written: 2026-11-28. */
export const dayName = (day: number): string => new Date(day * DAY_MS).toISOString().slice(0, 10)
