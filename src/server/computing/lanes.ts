import type { TaskName } from './tasks.ts'

/** Threads that share a queue, and how long a task in them may wait. */
export interface LaneRules {
  readonly threads: number
  /** Milliseconds a task may wait for its turn. */
  readonly patience: number
  /** Megabytes a thread may hold. */
  readonly memory: number
}

/** Milliseconds of one task, from its begin. */
const USUAL = 2000
/** The longest charts, lines and files there may be take longer. */
const LONGER: Readonly<Partial<Record<TaskName, number>>> = {
  plan: 20_000,
  analyse: 5000,
  audit: 5000,
  take: 30_000,
  row: 5000,
  exportLine: 5000,
  import: 5000,
  readLine: 5000,
  openapi: 30_000,
}
export const limitOf = (task: TaskName): number => LONGER[task] ?? USUAL

/** Plans take long and have a thread of their own; nobody else waits behind one. */
export const LANES = {
  usual: { threads: 2, patience: 20_000, memory: 256 },
  plans: { threads: 1, patience: 60_000, memory: 512 },
} as const satisfies Readonly<Record<string, LaneRules>>
export type LaneName = keyof typeof LANES

export const laneOf = (task: TaskName): LaneName => (task === 'plan' ? 'plans' : 'usual')

/** So many of one asker wait for one kind of task, and so many in all in one lane. */
export const MOST_WAITING = { ofOne: 64, inAll: 256 } as const
