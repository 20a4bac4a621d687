import { readyThreads, stopComputing } from './computing/computing.ts'
import { openDatabase } from './database.ts'
import type { Database } from './sql.ts'

let opening: Promise<Database> | null = null

/** So long after the data was opened the threads are made ready: the first page goes first. */
const AFTER = 1500

const open = async (): Promise<Database> => {
  try {
    const database = await openDatabase(process.env.CROSSFADE_DATA ?? 'data')
    readyThreads(AFTER)
    return database
  } catch (error) {
    opening = null
    throw error
  }
}

/** The data of this process, opened once. A failed opening is not remembered: the next call tries again. */
export const store = (): Promise<Database> => {
  opening ??= open()
  return opening
}

/** Ends what is being worked out and closes the data at a clean stop; does nothing where it was never opened. */
const closeStore = async (): Promise<void> => {
  await stopComputing()
  const opened = opening
  opening = null
  await (await opened?.catch(() => null))?.close()
}

/** Where the process that serves this program finds how to close it. */
Object.assign(globalThis, { [Symbol.for('crossfade.close')]: closeStore })
