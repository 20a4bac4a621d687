import { stopComputing } from './computing/computing.ts'
import { openDatabase } from './database.ts'
import type { Database } from './sql.ts'

let opening: Promise<Database> | null = null

/** The data of this process, opened once. A failed opening is not remembered: the next call tries again. */
export const store = (): Promise<Database> => {
  opening ??= openDatabase(process.env.CROSSFADE_DATA ?? 'data').catch((error: unknown) => {
    opening = null
    throw error
  })
  return opening
}

/** Ends what is being worked out and closes the data at a clean stop; does nothing where it was never opened. */
const closeStore = async (): Promise<void> => {
  await stopComputing()
  const open = opening
  opening = null
  await (await open?.catch(() => null))?.close()
}

/** Where the process that serves this program finds how to close it. */
Object.assign(globalThis, { [Symbol.for('crossfade.close')]: closeStore })
