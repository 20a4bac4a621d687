import { Problem } from '../problems.ts'
import type { Database } from '../sql.ts'
import { BACKED_UP } from './tables.ts'

/** What was found of a table that is not as it was written. */
export interface Damage {
  readonly table: string
  readonly why: string
}

const readThrough = (table: string): string =>
  `select count(*)::int as found, coalesce(sum(length(t::text)), 0)::text as read from ${table} t`
const BY_KEY = 'set local enable_seqscan = off'

const damageOf = async (db: Database, name: string, table: string, key: string): Promise<Damage | null> => {
  try {
    return await db.snapshot(async (sql) => {
      const [through] = await sql.query<{ found: number }>(readThrough(table))
      await sql.query(BY_KEY)
      const [byKey] = await sql.query<{ found: number }>(
        `select count(${key})::int as found from ${table} where ${key} >= ''`,
      )
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

/** Reads every table through, and counts its rows against what was written: what is damaged, none where all is whole. */
export const findDamage = async (db: Database): Promise<readonly Damage[]> => {
  const found: Damage[] = []
  for (const { name, table, key } of BACKED_UP) {
    const damage = await damageOf(db, name, table, key[0] as string)
    if (damage) found.push(damage)
  }
  return found
}

export const damageSentence = (damage: readonly Damage[]): string =>
  `The data is damaged: ${damage.map((d) => `${d.table}, ${d.why}`).join('; ')}.`
