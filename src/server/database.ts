import { join, resolve } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { lockDirectory, takenSentence } from './lock.mjs'
import type { Database, Sql } from './sql.ts'

const MIGRATIONS: Readonly<Record<string, string>> = import.meta.glob('./migrations/*.sql', {
  query: '?raw',
  import: 'default',
  eager: true,
})

const numbered = Object.entries(MIGRATIONS)
  .map(([path, text]) => ({ version: Number(/(\d{4})-/.exec(path)?.[1]), text }))
  .sort((a, b) => a.version - b.version)
const NEWEST = numbered.at(-1)?.version ?? 0

interface Queries {
  query<T>(text: string, parameters?: unknown[]): Promise<{ rows: T[] }>
}
const sqlOver = (pg: Queries): Sql => ({
  query: async <Row>(text: string, parameters: readonly unknown[] = []) =>
    (await pg.query<Row>(text, [...parameters])).rows,
})

const migrate = async (pg: PGlite): Promise<void> => {
  await pg.exec('create table if not exists schema_version (version integer not null)')
  const found = await pg.query<{ version: number }>('select coalesce(max(version), 0) as version from schema_version')
  const version = found.rows[0]?.version ?? 0
  if (version > NEWEST)
    throw new Error(
      `This data was written by a newer Crossfade (schema ${version}; this program knows ${NEWEST}). It is left as it is.`,
    )
  for (const step of numbered.filter((m) => m.version > version))
    await pg.transaction(async (tx) => {
      await tx.exec(step.text)
      await tx.query('insert into schema_version (version) values ($1)', [step.version])
    })
}

/**
 * Opens a data directory: takes its lock, opens the database in `pg/` (making it where missing), migrates.
 * Rejects with a sentence for the player where another process has it or the data is newer than the program.
 */
export const openDatabase = async (directory: string): Promise<Database> => {
  const unlock = await lockDirectory(resolve(directory)).catch((error: NodeJS.ErrnoException) => {
    throw error.code === 'EADDRINUSE' ? new Error(takenSentence(directory)) : error
  })
  try {
    const folder = join(directory, 'pg')
    const pg = await PGlite.create({
      dataDir: folder,
      startParams: [...PGlite.defaultStartParams, '-c', 'shared_buffers=16MB'],
    })
    await migrate(pg)
    return {
      ...sqlOver(pg),
      transaction: (work) => pg.transaction((tx) => work(sqlOver(tx))),
      close: async () => {
        await pg.close()
        await unlock()
      },
      schemaVersion: NEWEST,
    }
  } catch (error) {
    await unlock()
    throw error
  }
}
