import { Piscina } from 'piscina'
import { Problem } from '../problems.ts'
import type { Answer, Asked, Outcome } from './asked.ts'
import { LANES, type LaneName, laneOf, limitOf, MOST_WAITING } from './lanes.ts'
import type { TaskName } from './tasks.ts'
import type { Sent } from './thread.ts'
import thread from './thread.ts?thread'
import { type Turns, turnsOf } from './turns.ts'

interface Job {
  readonly task: TaskName
  readonly asked: Asked
  readonly gone: AbortSignal
  readonly begun: () => void
  readonly answered: (answer: Answer) => void
  readonly refused: (error: unknown) => void
}

interface Lane {
  readonly pool: Piscina
  readonly turns: Turns<Job>
  running: number
}

const lanes = new Map<LaneName, Lane>()

/** A thread beyond the first of a lane that has nothing to do for a while ends. */
const IDLE = 60_000

const laneNamed = (name: LaneName): Lane => {
  const open = lanes.get(name)
  if (open) return open
  const { threads, memory } = LANES[name]
  const pool = new Piscina({
    filename: thread,
    minThreads: 1,
    maxThreads: threads,
    idleTimeout: IDLE,
    resourceLimits: { maxOldGenerationSizeMb: memory },
  })
  const lane = { pool, turns: turnsOf<Job>(MOST_WAITING.ofOne, MOST_WAITING.inAll), running: 0 }
  lanes.set(name, lane)
  return lane
}

const seconds = (ms: number): string => `${ms / 1000} seconds`
const tooLong = (ms: number): Problem =>
  new Problem('too_long', `This was stopped after ${seconds(ms)}. Ask for less at once: fewer bars, notes or wishes.`)
const tooHeavy = (): Problem =>
  new Problem('too_heavy', 'This would take too much memory and was stopped. Ask for less at once.')
const busy = (): Problem => new Problem('busy', 'Too much is being worked out at once. Ask again in a moment.')
/** Nobody reads it any more. */
const nobody = (): Problem => new Problem('busy', 'The asker has gone.')

const isOutOfMemory = (error: unknown): boolean =>
  (error as { code?: string } | null)?.code === 'ERR_WORKER_OUT_OF_MEMORY'

/** A thread that still starts is given its time so often again. */
const MOST_STARTS = 5

/** Runs a job on a thread; past its time, or when its asker hangs up, the thread is ended and another takes its place. */
const run = async (lane: Lane, name: LaneName, { task, asked, gone, ...job }: Job): Promise<void> => {
  const stop = new AbortController()
  const limit = limitOf(task)
  const begun = new Int32Array(new SharedArrayBuffer(4))
  let [late, starts] = [false, 0]
  const look = (): void => {
    const isStarting = Atomics.load(begun, 0) === 0 && starts++ < MOST_STARTS
    late = !isStarting
    if (isStarting) timer = setTimeout(look, limit)
    else stop.abort()
  }
  let timer = setTimeout(look, limit)
  const hangUp = (): void => stop.abort()
  gone.addEventListener('abort', hangUp)
  lane.running++
  job.begun()
  try {
    const sent: Sent = { task, asked, begun }
    const outcome: Outcome = await lane.pool.run(sent, { signal: stop.signal })
    if (outcome.ok) job.answered(outcome.answer)
    else job.refused(new Problem(outcome.problem.code, outcome.problem.detail, outcome.problem.errors))
  } catch (error) {
    job.refused(late ? tooLong(limit) : gone.aborted ? nobody() : isOutOfMemory(error) ? tooHeavy() : error)
  } finally {
    clearTimeout(timer)
    gone.removeEventListener('abort', hangUp)
    lane.running--
    takeTurn(lane, name)
  }
}

const takeTurn = (lane: Lane, name: LaneName): void => {
  while (lane.running < LANES[name].threads) {
    const job = lane.turns.next()
    if (!job) return
    void run(lane, name, job)
  }
}

/** Bytes of bodies that may wait or be worked on at once. */
const MOST_HELD = 64 * 1024 * 1024
let held = 0

/**
 * Has a task worked out on a thread of the pool, when its turn comes: askers take turns, and so do the kinds of task of
 * one asker. Rejects with a problem: what the task found wrong, too long, too heavy, or too much waiting at once.
 */
export const compute = (task: TaskName, asked: Asked, asker: string, gone: AbortSignal): Promise<Answer> =>
  new Promise<Answer>((resolve, reject) => {
    if (gone.aborted) return reject(nobody())
    const name = laneOf(task)
    const lane = laneNamed(name)
    const place = `${asker} ${task}`
    const size = asked.body?.length ?? 0
    if (held + size > MOST_HELD) return reject(busy())
    held += size
    let isDone = false
    const done = (): void => {
      if (isDone) return
      isDone = true
      held -= size
      clearTimeout(impatient)
      gone.removeEventListener('abort', hangUp)
    }
    /** Out of the line; what runs already is ended by whoever runs it. */
    const leave = (problem: Problem): void => {
      if (!lane.turns.drop(place, job)) return
      done()
      reject(problem)
    }
    const hangUp = (): void => leave(nobody())
    const impatient = setTimeout(() => leave(busy()), LANES[name].patience)
    const job: Job = {
      task,
      asked,
      gone,
      begun: () => clearTimeout(impatient),
      answered: (answer) => {
        done()
        resolve(answer)
      },
      refused: (error) => {
        done()
        reject(error)
      },
    }
    gone.addEventListener('abort', hangUp)
    if (!lane.turns.add(place, job)) {
      done()
      return reject(busy())
    }
    takeTurn(lane, name)
  })

/** Starts a thread of each lane and has it make itself ready, a little after the program began to answer. */
export const readyThreads = (after: number): void => {
  const start = (): void => {
    for (const name of Object.keys(LANES) as LaneName[]) {
      const sent: Sent = { warm: name }
      laneNamed(name)
        .pool.run(sent)
        // One that is ended while it gets ready is no failure.
        .catch((error: unknown) => lanes.has(name) && console.error(error))
    }
  }
  setTimeout(start, after).unref()
}

/** Ends every thread, whatever it is at. */
export const stopComputing = async (): Promise<void> => {
  const open = [...lanes.values()]
  lanes.clear()
  await Promise.all(open.map((lane) => lane.pool.destroy().catch(() => undefined)))
}
