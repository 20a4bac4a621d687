import { platform, setPriority } from 'node:os'
import { Problem } from '../problems.ts'
import type { Asked, Outcome } from './asked.ts'
import { TASKS, type TaskName } from './tasks.ts'

/** How much a thread that computes stands back behind the one that answers. Elsewhere it would slow the whole program. */
const STANDS_BACK = 10
if (platform() === 'linux') setPriority(STANDS_BACK)

/** The work of one thread: a task by its name. Problems are told as values; anything else is a fault and is thrown. */
const work = async ({ task, asked }: { readonly task: TaskName; readonly asked: Asked }): Promise<Outcome> => {
  try {
    return { ok: true, answer: await TASKS[task](asked) }
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    const { code, detail, errors } = error
    return { ok: false, problem: { code, detail, errors } }
  }
}

export default work
