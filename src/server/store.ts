import { setTimeout as after } from 'node:timers/promises'
import { type Damage, findDamage } from './backup/damage.ts'
import { clearPassing, hasNews, keepBackupOfNews } from './backup/kept-backups.ts'
import { clearOldSounds } from './backup/restore.ts'
import { readyThreads, stopComputing } from './computing/computing.ts'
import { openDatabase } from './database.ts'
import { readDoor } from './devices/codes.ts'
import { doorsOutside } from './devices/outside.ts'
import { DEVICES, hear } from './live/hearing.ts'
import { type Database, MISSED } from './sql.ts'

let opening: Promise<Database> | null = null
let damage: readonly Damage[] = []

/** So long after the data was opened the threads are made ready: the first page goes first. */
const AFTER = 1500
/** So often the data is read through, and backed up where anything was written. */
const NOW_AND_THEN = 60 * 60 * 1000
/** What the last stop had no time for is made up for so long after the next start. */
const SOON = 60 * 1000
/** A stop waits so long for its backup. */
const LAST = 1000

const checkUp = async (database: Database): Promise<void> => {
  damage = await findDamage(database)
}

/** A backup of damaged data would push out one that is whole. */
const backUp = async (database: Database, occasion: 'now and then' | 'at a clean stop'): Promise<void> => {
  try {
    await checkUp(database)
    if (damage.length === 0) await keepBackupOfNews(database, occasion, __VERSION__)
  } catch (error) {
    console.error(`No backup was made: ${error instanceof Error ? error.message : error}`)
  }
}

const directory = process.env.CROSSFADE_DATA ?? 'data'

/** On a server where one is named, else in the data directory. */
const opened = async (url: string, folder: string): Promise<Database> =>
  url === '' ? openDatabase(folder) : (await import('./postgres.ts')).openPostgres(url, folder)

const showDoor = async (database: Database): Promise<void> => {
  const door = await readDoor(database).catch(() => null)
  if (door) await doorsOutside().show(door.open)
}

/** The door stands as it was left, and goes with it when another program on the same database opens or shuts it. */
const followDoor = async (database: Database): Promise<void> => {
  await showDoor(database)
  await hear(database, (told) => {
    if (told === DEVICES || told === MISSED) void showDoor(database)
  })
}

const open = async (): Promise<Database> => {
  try {
    const database = await opened(process.env.DATABASE_URL ?? '', directory)
    await checkUp(database)
    if (damage.length === 0) await clearOldSounds(database)
    await clearPassing(database.directory)
    await followDoor(database)
    readyThreads(AFTER)
    setTimeout(() => opening && backUp(database, 'now and then'), SOON).unref()
    setInterval(() => opening && backUp(database, 'now and then'), NOW_AND_THEN).unref()
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

/** What was found damaged when the data was last read through. */
export const foundDamage = (): readonly Damage[] => damage

/** Reads everything through again, as after a restore. */
export const checkAgain = async (): Promise<readonly Damage[]> => {
  await checkUp(await store())
  return damage
}

/** What cannot be asked may be damaged: then it is read through. */
const lastBackup = async (database: Database): Promise<void> => {
  if (await hasNews(database).catch(() => true)) await backUp(database, 'at a clean stop')
}

/** Ends what is being worked out, backs up and closes the data at a clean stop; does nothing where it was never opened. */
const closeStore = async (): Promise<void> => {
  await stopComputing()
  const database = await opening?.catch(() => null)
  if (!database) return
  await Promise.race([lastBackup(database), after(LAST)])
  opening = null
  await database.close()
}

/** Carries everything over to another place; gives how many rows each table has. */
const move = async (url: string, folder: string): Promise<Readonly<Record<string, number>>> => {
  const other = await opened(url, folder)
  try {
    const { moveTo } = await import('./move.ts')
    return await moveTo(await store(), other)
  } finally {
    await other.close()
  }
}

/** Where the process that serves this program finds how to close it, and how to move what it keeps. */
Object.assign(globalThis, { [Symbol.for('crossfade.close')]: closeStore, [Symbol.for('crossfade.move')]: move })
