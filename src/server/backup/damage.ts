import { Problem } from '../problems.ts'
import type { Database } from '../sql.ts'
import { BACKED_UP, type BackedUp } from './tables.ts'

/** What was found of a table that is not as it was written. */
export interface Damage {
  readonly table: string
  readonly why: string
}

const readThrough = (table: string): string =>
  `select count(*)::int as found, coalesce(sum(length(t::text)), 0)::text as read from ${table} t`
const BY_KEY = 'set local enable_seqscan = off'
const byKeyIn = (table: string, key: string): string =>
  `select count(${key})::int as found from ${table} where ${key} >= ''`

const damageOf = async (db: Database, name: string, table: string, key: string): Promise<Damage | null> => {
  try {
    return await db.snapshot(async (sql) => {
      const [through] = await sql.query<{ found: number }>(readThrough(table))
      await sql.query(BY_KEY)
      const [byKey] = await sql.query<{ found: number }>(byKeyIn(table, key))
      const [counted] = await sql.query<{ rows: number }>('select rows::int as rows from row_counts where name = $1', [
        table,
      ])
      const found = through?.found ?? 0
      if (counted === undefined) return { table: name, why: 'how many rows were written is not known any more' }
      if (found !== counted.rows) return { table: name, why: `${found} of ${counted.rows} are there` }
      return byKey?.found === found ? null : { table: name, why: 'its index does not find every row' }
    })
  } catch (error) {
    // A server that is away says nothing of what it holds.
    if (error instanceof Problem) throw error
    return { table: name, why: `it does not read: ${error instanceof Error ? error.message : 'unknown'}` }
  }
}

const ofAll = (read: (of: BackedUp) => string): string => BACKED_UP.map(read).join(' union all ')
const ALL_THROUGH = ofAll(
  ({ table }) => `select '${table}' as name, found, rows::int as rows, read from (${readThrough(table)}) as through
    left join row_counts c on c.name = '${table}'`,
)
const ALL_BY_KEY = ofAll(
  ({ table, key: [key] }) => `select '${table}' as name, found from (${byKeyIn(table, key as string)}) as by_key`,
)

/** All tables in few questions, as at every start: whether nothing at all is amiss. */
const isWhole = async (db: Database): Promise<boolean> => {
  try {
    return await db.snapshot(async (sql) => {
      const through = await sql.query<{ name: string; found: number; rows: number | null }>(ALL_THROUGH)
      await sql.query(BY_KEY)
      const all = await sql.query<{ name: string; found: number }>(ALL_BY_KEY)
      const byKey = new Map(all.map(({ name, found }) => [name, found]))
      return through.every(({ name, found, rows }) => found === rows && byKey.get(name) === found)
    })
  } catch (error) {
    if (error instanceof Problem) throw error
    return false
  }
}

/** Reads every table through, and counts its rows against what was written: what is damaged, none where all is whole. */
export const findDamage = async (db: Database): Promise<readonly Damage[]> => {
  if (await isWhole(db)) return []
  const found: Damage[] = []
  for (const { name, table, key } of BACKED_UP) {
    const damage = await damageOf(db, name, table, key[0] as string)
    if (damage) found.push(damage)
  }
  return found
}

export const damageSentence = (damage: readonly Damage[]): string =>
  `The data is damaged: ${damage.map((d) => `${d.table}, ${d.why}`).join('; ')}.`
