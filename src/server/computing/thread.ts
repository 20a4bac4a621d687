import { platform, setPriority } from 'node:os'
import { Problem } from '../problems.ts'
import type { Asked, Outcome } from './asked.ts'
import type { LaneName } from './lanes.ts'
import { TASKS, type TaskName } from './tasks.ts'
import { warmUp } from './warm.ts'

/** How much a thread that computes stands back behind the one that answers. Elsewhere it would slow the whole program. */
const STANDS_BACK = 10
const standBack = (): void => {
  try {
    if (platform() === 'linux') setPriority(STANDS_BACK)
  } catch {
    // Where the system does not allow it, threads compute all the same.
  }
}
standBack()

const READY: Outcome = { ok: true, answer: { kind: 'json', text: '' } }

/** What a thread is sent: a task, or (before any) for which lane it shall make itself ready. */
export type Sent =
  | {
      readonly task: TaskName
      readonly asked: Asked
      /** Shared: set to 1 when the work begins, since a thread may have to start first. */
      readonly begun: Int32Array
    }
  | { readonly warm: LaneName }

/** The work of one thread: a task by its name. Problems are told as values; anything else is a fault and is thrown. */
const work = async (sent: Sent): Promise<Outcome> => {
  if ('warm' in sent) {
    await warmUp[sent.warm]()
    return READY
  }
  const { task, asked, begun } = sent
  Atomics.store(begun, 0, 1)
  try {
    return { ok: true, answer: await TASKS[task](asked) }
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const { code, detail, errors } = error
    return { ok: false, problem: { code, detail, errors } }
  }
}

export default work
