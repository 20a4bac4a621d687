import { join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { damagedSentence, looksWhole } from './backup/whole.mjs'
import { lockDirectory, whyNotTaken } from './lock.mjs'
import { type Migrated, migrate, NEWEST_SCHEMA, Newer } from './migrations.ts'
import { roomFor } from './room.ts'
import { CHANNEL, type Database } from './sql.ts'

interface Queries {
  query<T>(text: string, parameters?: unknown[]): Promise<{ rows: T[] }>
  exec(text: string): Promise<unknown>
}
const sqlOver = (pg: Queries): Migrated => ({
  query: async <Row>(text: string, parameters: readonly unknown[] = []) =>
    (await pg.query<Row>(text, [...parameters])).rows,
  script: async (text) => void (await pg.exec(text)),
})

/** The journal is cut back whenever it has grown by so much: else it would grow until the program ends. */
const JOURNAL = 48 * 1024 * 1024
const LOOKED_AT_EVERY = 50

const journalOf = (pg: PGlite) => {
  let [writes, cut] = [0, 0]
  return async (): Promise<void> => {
    writes++
    if (writes % LOOKED_AT_EVERY !== 0) return
    const { rows } = await pg.query<{ at: number }>("select (pg_current_wal_lsn() - '0/0'::pg_lsn)::float8 as at")
    const at = rows[0]?.at ?? 0
    if (cut !== 0 && at - cut < JOURNAL) return
    if (cut !== 0) await pg.exec('checkpoint')
    cut = at
  }
}

const WRITES = /^\s*(insert|update|delete)\b/i

const openFolder = async (directory: string): Promise<PGlite> => {
  const folder = join(directory, 'pg')
  if (!looksWhole(folder)) throw new Error(damagedSentence(directory))
  try {
    const sizes = ['shared_buffers=16MB', 'min_wal_size=32MB', 'max_wal_size=64MB']
    const pg = await PGlite.create({
      dataDir: folder,
      startParams: [...PGlite.defaultStartParams, ...sizes.flatMap((s) => ['-c', s])],
    })
    await migrate(sqlOver(pg), (work) => pg.transaction((tx) => work(sqlOver(tx))))
    return pg
  } catch (error) {
    if (error instanceof Newer) throw error
    console.error(`The database says: ${error instanceof Error ? error.message : error}`)
    throw new Error(damagedSentence(directory))
  }
}

/**
 * Opens a data directory: takes its lock, opens the database in `pg/` (making it where missing), migrates.
 * Rejects with a sentence for the player where another process has it, where it is damaged or cannot be written to, or
 * where the data is newer than the program.
 */
export const openDatabase = async (directory: string): Promise<Database> => {
  const unlock = await lockDirectory(resolve(directory)).catch((error: unknown) => {
    const why = whyNotTaken(directory, error)
    throw why === null ? error : new Error(why)
  })
  try {
    roomFor(directory, 0)
    const pg = await openFolder(directory)
    const grown = journalOf(pg)
    const sql = sqlOver(pg)
    return {
      query: async <Row>(text: string, parameters?: readonly unknown[]) => {
        if (WRITES.test(text)) roomFor(directory, 0)
        return sql.query<Row>(text, parameters)
      },
      transaction: async (work) => {
        roomFor(directory, 0)
        const done = await pg.transaction((tx) => work(sqlOver(tx)))
        await grown()
        return done
      },
      snapshot: (work) =>
        pg.transaction(async (tx) => {
          await tx.exec('set transaction isolation level repeatable read, read only')
          return work(sqlOver(tx))
        }),
      hasRoomFor: (bytes) => roomFor(directory, bytes),
      listen: async (hears) => void (await pg.listen(CHANNEL, hears)),
      close: async () => {
        await pg.close()
        await unlock()
      },
      schemaVersion: NEWEST_SCHEMA,
      directory,
    }
  } catch (error) {
    await unlock()
    throw error
  }
}
