import { cp } from 'node:fs/promises'
import { basename, join, resolve } from 'node:path'
import { soundFolder } from './sounds.ts'
import type { Database, Sql } from './sql.ts'

/** Every table that is carried over, what refers to another after it; how many rows each has is counted as they come. */
const TABLES = [
  { table: 'charts', key: 'id' },
  { table: 'routes', key: 'id' },
  { table: 'lines', key: 'id' },
  { table: 'ideas', key: 'id' },
  { table: 'items', key: 'id' },
  { table: 'takes', key: 'id' },
  { table: 'take_parts', key: "take_id || ' ' || n" },
  { table: 'log_entries', key: 'id' },
  { table: 'settings', key: 'id' },
  { table: 'changes', key: "lpad(id::text, 20, '0')" },
  { table: 'sound_folder', key: 'name' },
  { table: 'door', key: 'one::text' },
  { table: 'devices', key: 'id' },
] as const
/** Tables in which a migration puts a row of its own. */
const BEGUN = ['sound_folder', 'door']
const SEQUENCES = ['changes_id_seq', 'changes_undone']

const BATCH = 200
/** As C sorts it, so that two databases go through their rows in one order. */
const inOrder = (key: string): string => `(${key}) collate "C"`

interface Column {
  readonly name: string
  readonly type: string
}
const columnsOf = (sql: Sql, table: string): Promise<readonly Column[]> =>
  sql.query<Column>(
    `select quote_ident(attname) as name, format_type(atttypid, atttypmod) as type from pg_attribute
      where attrelid = $1::regclass and attnum > 0 and not attisdropped order by attnum`,
    [table],
  )

/** Carries a table over in batches, each value as its text. */
const carry = async (from: Sql, to: Sql, { table, key }: (typeof TABLES)[number]): Promise<number> => {
  const columns = await columnsOf(from, table)
  const names = columns.map((c) => c.name).join(', ')
  const texts = columns.map((c, i) => `${c.name}::text as c${i}`).join(', ')
  const read = `select ${inOrder(key)} as place, ${texts} from ${table}
    where $1::text is null or ${inOrder(key)} > $1::text order by ${inOrder(key)} limit ${BATCH}`
  const write = `insert into ${table} (${names}) overriding system value
    select ${columns.map((c, i) => `c${i}::${c.type}`).join(', ')}
    from unnest(${columns.map((_, i) => `$${i + 1}::text[]`).join(', ')}) as r(${columns.map((_, i) => `c${i}`).join(', ')})`
  if (BEGUN.includes(table)) await to.query(`delete from ${table}`)
  let [place, count]: [string | null, number] = [null, 0]
  for (;;) {
    const rows: readonly Readonly<Record<string, string | null>>[] = await from.query(read, [place])
    if (rows.length === 0) return count
    await to.query(
      write,
      columns.map((_, i) => rows.map((row) => row[`c${i}`] ?? null)),
    )
    count += rows.length
    place = rows.at(-1)?.place ?? null
  }
}

interface Mark {
  readonly place: string
  readonly mark: string
}
const marksOf = (sql: Sql, { table, key }: (typeof TABLES)[number]): Promise<readonly Mark[]> =>
  sql.query<Mark>(`select ${inOrder(key)} as place, md5(t::text) as mark from ${table} t order by ${inOrder(key)}`)

/** Every row there is as it is here, or this throws. */
const verify = async (from: Sql, to: Sql, table: (typeof TABLES)[number]): Promise<void> => {
  const [here, there] = [await marksOf(from, table), await marksOf(to, table)]
  const wrong = here.find((row, i) => row.place !== there[i]?.place || row.mark !== there[i]?.mark)
  if (wrong) throw new Error(`${table.table}: the row ${wrong.place} did not arrive as it was. Nothing was changed.`)
  if (here.length !== there.length) throw new Error(`${table.table}: more arrived than was sent. Nothing was changed.`)
}

const carrySequence = async (from: Sql, to: Sql, name: string): Promise<void> => {
  const [at] = await from.query<{ value: string; called: boolean }>(
    `select last_value::text as value, is_called as called from ${name}`,
  )
  if (at) await to.query('select setval($1::regclass, $2::text::bigint, $3)', [name, at.value, at.called])
}

const UTC = "set local timezone = 'UTC'"

const refuseFilled = async (to: Sql): Promise<void> => {
  for (const { table } of TABLES.filter((t) => !BEGUN.includes(t.table))) {
    const [row] = await to.query(`select 1 from ${table} limit 1`)
    if (row) throw new Error(`There is data already where this would go (${table}). Nothing was changed.`)
  }
}

/**
 * Carries everything that is kept into an empty database, all or nothing, each row compared with what was sent; gives how
 * many rows each table has. The sounds go along where the other has another data directory.
 */
export const moveTo = async (from: Database, to: Database): Promise<Readonly<Record<string, number>>> => {
  const counts = await from.snapshot((here) =>
    to.transaction(async (there) => {
      await here.query(UTC)
      await there.query(UTC)
      await refuseFilled(there)
      const moved: Record<string, number> = {}
      for (const table of TABLES) moved[table.table] = await carry(here, there, table)
      for (const table of TABLES) await verify(here, there, table)
      for (const name of SEQUENCES) await carrySequence(here, there, name)
      return moved
    }),
  )
  if (resolve(from.directory) !== resolve(to.directory)) {
    const folder = await soundFolder(from.directory, from)
    await cp(folder, join(to.directory, basename(folder)), { recursive: true }).catch(
      (error: NodeJS.ErrnoException) => {
        if (error.code !== 'ENOENT') throw error
      },
    )
  }
  return counts
}
