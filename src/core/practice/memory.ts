import type { Grade } from './log.ts'

/** What is remembered of a card: days until recall falls to nine in ten, and how hard it is, 1 to 10. */
export interface Memory {
  readonly stability: number
  readonly difficulty: number
}

/** A model of memory, which comes from outside: the core only says what was graded when. */
export interface MemoryModel {
  /** What is remembered after a grade, so many whole days after the one before; null: it is the first. */
  readonly after: (before: Memory | null, days: number, grade: Grade) => Memory
  /** Whole days until it is due after that grade. */
  readonly dueIn: (before: Memory | null, days: number, grade: Grade) => number
  /** The chance that it is still held, 0 to 1, so many days after the last grade. */
  readonly held: (memory: Memory, days: number) => number
}
