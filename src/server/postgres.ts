import { mkdirSync } from 'node:fs'
import pg from 'pg'
import { type Migrated, migrate, NEWEST_SCHEMA } from './migrations.ts'
import { Problem } from './problems.ts'
import { roomFor } from './room.ts'
import { CHANNEL, type Database, MISSED } from './sql.ts'

/** Connections of one process; so long one is waited for, ms. */
const MOST_CONNECTIONS = 8
const PATIENCE_MS = 15_000
/** Writes go one after another in every process, as in a database of one's own; steps of the schema too. */
const WRITE_LOCK = 0x63726f73
const MIGRATE_LOCK = 0x63726f74
const EIGHT_BYTES = 20

const LOST_CODES = /^(ECONN|ETIMEDOUT|ENOTFOUND|EPIPE|EAI_AGAIN|08|57P0[123]|53300)/
const LOST_WORDS =
  /Connection terminated|timeout exceeded when trying to connect|Client has encountered a connection error/

const isLost = (error: unknown): boolean =>
  error instanceof Error &&
  (LOST_CODES.test((error as { code?: string }).code ?? '') ||
    LOST_WORDS.test(error.message) ||
    (error instanceof AggregateError && error.errors.some(isLost)))

/** What the database server refuses that is none of our doing, in the interface's words. */
const told = (error: unknown): unknown => {
  if (isLost(error))
    return new Problem(
      'no_database',
      'The database server is not answering. What is kept is safe; it goes on by itself.',
    )
  if ((error as { code?: string }).code === '53100')
    return new Problem('disk_full', 'The disk of the database server is full. Make room, and it goes on by itself.')
  return error
}

const sqlOver = (client: pg.ClientBase): Migrated => ({
  query: async <Row>(text: string, parameters: readonly unknown[] = []) =>
    (await client.query<Row & pg.QueryResultRow>(text, [...parameters])).rows,
  script: async (text) => void (await client.query(text)),
})

/** A connection of one's own for a piece of work; one that failed is not used again, and why is told in our words. */
const withClient = async <T>(pool: pg.Pool, work: (client: pg.PoolClient) => Promise<T>): Promise<T> => {
  const client = await pool.connect().catch((error: unknown) => {
    throw told(error)
  })
  let lost: Error | undefined
  const onError = (error: Error): void => {
    lost = error
  }
  client.on('error', onError)
  try {
    return await work(client)
  } catch (error) {
    if (isLost(error)) lost = error as Error
    throw told(error)
  } finally {
    client.off('error', onError)
    client.release(lost)
  }
}

const inTransaction = async <T>(
  client: pg.PoolClient,
  how: string,
  work: (sql: Migrated) => Promise<T>,
): Promise<T> => {
  await client.query(`begin ${how}`)
  try {
    const done = await work(sqlOver(client))
    await client.query('commit')
    return done
  } catch (error) {
    await client.query('rollback').catch(() => undefined)
    throw error
  }
}

const LISTENED_AGAIN_MS = 500

/** A connection that hears what is told, made anew as often as it is lost; gives what ends it. */
const listening = (config: pg.ClientConfig, hears: (told: string) => void): (() => Promise<void>) => {
  let client: pg.Client | null = null
  let [isOver, wasLost] = [false, false]
  const connect = (): void => {
    const mine = new pg.Client(config)
    client = mine
    let isGone = false
    const again = (): void => {
      if (isOver || isGone) return
      isGone = true
      wasLost = true
      setTimeout(connect, LISTENED_AGAIN_MS).unref()
    }
    mine.on('notification', ({ payload }) => payload && hears(payload))
    mine.on('error', again)
    mine.on('end', again)
    mine
      .connect()
      .then(() => mine.query(`listen ${CHANNEL}`))
      .then(() => wasLost && hears(MISSED))
      .catch(again)
  }
  connect()
  return async () => {
    isOver = true
    await client?.end().catch(() => undefined)
  }
}

/**
 * Opens a database on a PostgreSQL server (15 or newer), which several processes may share. The sounds and the backups
 * lie in the data directory all the same. Rejects with a sentence where the server does not answer or the data is newer.
 */
export const openPostgres = async (url: string, directory: string): Promise<Database> => {
  mkdirSync(directory, { recursive: true })
  const config = { connectionString: url, connectionTimeoutMillis: PATIENCE_MS, application_name: 'crossfade' }
  const pool = new pg.Pool({
    ...config,
    max: MOST_CONNECTIONS,
    options: '-c timezone=UTC',
    types: { getTypeParser: (oid, format) => (oid === EIGHT_BYTES ? Number : pg.types.getTypeParser(oid, format)) },
  })
  pool.on('error', (error) => console.error(`A connection to the database was lost: ${error.message}`))
  try {
    await withClient(pool, async (client) => {
      await client.query('select pg_advisory_lock($1)', [MIGRATE_LOCK])
      await migrate(sqlOver(client), (work) => inTransaction(client, '', work))
      await client.query('select pg_advisory_unlock($1)', [MIGRATE_LOCK])
    })
  } catch (error) {
    await pool.end()
    throw error
  }
  const ends: (() => Promise<void>)[] = []
  return {
    query: <Row>(text: string, parameters?: readonly unknown[]) =>
      withClient(pool, (client) => sqlOver(client).query<Row>(text, parameters)),
    transaction: (work) =>
      withClient(pool, (client) =>
        inTransaction(client, '', async (sql) => {
          await sql.query('select pg_advisory_xact_lock($1)', [WRITE_LOCK])
          return work(sql)
        }),
      ),
    snapshot: (work) =>
      withClient(pool, (client) =>
        inTransaction(client, 'transaction isolation level repeatable read, read only', work),
      ),
    hasRoomFor: (bytes) => roomFor(directory, bytes),
    listen: async (hears) => void ends.push(listening(config, hears)),
    close: async () => {
      await Promise.all(ends.map((end) => end()))
      await pool.end()
    },
    schemaVersion: NEWEST_SCHEMA,
    directory,
  }
}
