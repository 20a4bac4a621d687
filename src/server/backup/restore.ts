import { link, mkdir, readdir, rm } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { setImmediate } from 'node:timers/promises'
import { KINDS } from '../kinds.ts'
import { soundFile, soundFolder, withSounds } from '../sounds.ts'
import type { Database, Sql } from '../sql.ts'
import type { KeptRow } from './check-row.ts'
import { notABackup } from './manifest.ts'
import { beside, brought, type Here, type Manner, type Taken } from './merge.ts'
import type { OpenBackup } from './read-backup.ts'
import { BACKED_UP, type BackedUp } from './tables.ts'
import { isUnderWay, nameUnderWay } from './under-way.ts'
import { syncFolder } from './write-backup.ts'

/** How many rows of a kind came in anew, in place of another, or were left since what is here is later. */
export interface Came {
  added: number
  replaced: number
  left: number
}

const BATCH = 100

/** What stands here of a table. Moments are text to the microsecond, in the form of a backup. */
const standing = async (sql: Sql, { table, kind }: BackedUp): Promise<ReadonlyMap<string, Here>> => {
  if (kind === null) return new Map()
  const rows = await sql.query<Here & { id: string }>(
    `select id, version, to_json(updated_at) #>> '{}' as "updatedAt", deleted_at is not null as deleted from ${table}`,
  )
  return new Map(rows.map(({ id, ...here }) => [id, here]))
}

const takenOf = async (sql: Sql): Promise<Taken> => {
  const pairs = async (text: string) => {
    const rows = await sql.query<{ by: string; id: string }>(text)
    return new Map(rows.map((r) => [r.by, r.id]))
  }
  return {
    inHand: await pairs('select chart_id as by, id from routes where in_hand and deleted_at is null'),
    names: await pairs('select name as by, id from settings where deleted_at is null'),
  }
}

/** A row by its columns; what an older backup does not say is what counts where nothing is said. */
const byColumn = (row: KeptRow, { columns, kind }: BackedUp): Record<string, unknown> => {
  const unsaid = new Map(kind === null ? [] : KINDS[kind].fields.map((f) => [f.field, f.unsaid ?? null]))
  return Object.fromEntries(columns.map(([field, column]) => [column, row[field] ?? unsaid.get(field) ?? null]))
}

const insertInto = ({ table, columns, key }: BackedUp): string => {
  const names = columns.map(([, c]) => c).join(', ')
  const sets = columns.map(([, c]) => `${c} = excluded.${c}`).join(', ')
  return `insert into ${table} (${names}) select ${names} from json_populate_recordset(null::${table}, $1::json)
    on conflict (${key.join(', ')}) do update set ${sets}`
}

const bringTable = async (
  sql: Sql,
  backup: OpenBackup,
  table: BackedUp,
  here: ReadonlyMap<string, Here>,
  manner: Manner,
  taken: Taken,
): Promise<Came & { readonly ids: ReadonlySet<string> }> => {
  const came = { added: 0, replaced: 0, left: 0 }
  const ids = new Set<string>()
  let batch: Record<string, unknown>[] = []
  const flush = async () => {
    if (batch.length > 0) await sql.query(insertInto(table), [JSON.stringify(batch)])
    batch = []
    await setImmediate()
  }
  for await (const row of backup.rows(table)) {
    const id = String(row.id)
    const stands = here.get(id)
    const version = table.kind === null ? 1 : brought(row, stands, manner)
    const own = version === null ? null : manner === 'merge' ? beside(table.kind, row, taken) : row
    if (own === null) {
      came.left++
      continue
    }
    ids.add(id)
    came[stands ? 'replaced' : 'added']++
    batch.push(byColumn(table.kind === null ? own : { ...own, version }, table))
    if (batch.length === BATCH) await flush()
  }
  await flush()
  return { ...came, ids }
}

/** Unpacks the sounds into a folder of their own, before anybody has to wait. */
const unpackSounds = async (backup: OpenBackup, folder: string): Promise<void> => {
  await mkdir(folder, { recursive: true })
  for (const id of backup.takes) await backup.sound(id, soundFile(folder, id))
}

const takeOf = (fileName: string): string => decodeURIComponent(fileName.replace(/\.sound$/, ''))

/** Adds the sounds that stay to those that came, one file under two names meanwhile; gives the takes that have one. */
const gatherSounds = async (
  backup: OpenBackup,
  folder: string,
  old: string,
  came: ReadonlySet<string>,
  manner: Manner,
): Promise<readonly string[]> => {
  for (const id of backup.takes) if (!came.has(id)) await rm(soundFile(folder, id))
  const held = new Set(backup.takes.filter((id) => came.has(id)))
  for (const name of await readdir(old).catch(() => [])) {
    const id = takeOf(name)
    const stays = manner === 'merge' || came.has(id)
    if (stays && !held.has(id)) await link(join(old, name), join(folder, name))
  }
  await syncFolder(folder)
  return (await readdir(folder)).map(takeOf)
}

/** A take of which there is no sound does not say that it has one. */
const SILENT = `update takes set sound = null where jsonb_typeof(sound) = 'object' and not (id = any($1::text[]))`

/** Empties the tables without reading them, since they may be damaged. */
const clear = async (sql: Sql): Promise<void> => {
  const tables = BACKED_UP.map((t) => t.table)
  await sql.query(`truncate ${tables.join(', ')}, changes, row_counts`)
  for (const table of tables) await sql.query('insert into row_counts values ($1, 0)', [table])
}

/** What stands here of each table; where it is to be put aside and does not read, nothing. */
const whatStands = async (db: Database, manner: Manner): Promise<ReadonlyMap<BackedUp, ReadonlyMap<string, Here>>> => {
  const here = new Map<BackedUp, ReadonlyMap<string, Here>>()
  for (const table of BACKED_UP)
    here.set(
      table,
      await db
        .snapshot((sql) => standing(sql, table))
        .catch((error: unknown) => {
          if (manner === 'merge') throw error
          return new Map()
        }),
    )
  return here
}
const NONE: Taken = { inHand: new Map(), names: new Map() }

/** What the database does not take: values that are none, rows that refer to none, two where there is one. */
const isRefusal = (error: unknown): error is Error => /^2[123]...$/.test((error as { code?: string }).code ?? '')

/**
 * Brings a verified backup in: all of it or nothing, the sounds too. What is undone reaches no further back than this.
 * Throws where a row refers to one that is neither here nor in the backup.
 */
export const restore = (db: Database, backup: OpenBackup, manner: Manner) =>
  withSounds(async () => {
    const [old, fresh] = [await soundFolder(db.directory, db), join(db.directory, `sounds-${nameUnderWay()}`)]
    const came: Record<string, Came> = {}
    const here = await whatStands(db, manner)
    const taken = manner === 'merge' ? await db.snapshot(takenOf) : NONE
    try {
      await unpackSounds(backup, fresh)
      await db.transaction(async (sql) => {
        if (manner === 'replace') await clear(sql)
        const touched: string[] = []
        let takes: ReadonlySet<string> = new Set()
        for (const table of BACKED_UP) {
          const { ids, ...counts } = await bringTable(sql, backup, table, here.get(table) ?? new Map(), manner, taken)
          touched.push(...ids)
          if (table.kind === 'takes') takes = ids
          if (table.kind !== null) came[table.name] = counts
        }
        if (manner === 'merge')
          await sql.query('update changes set gone = true where row_id = any($1::text[])', [touched])
        await sql.query(SILENT, [await gatherSounds(backup, fresh, old, takes, manner)])
        await sql.query('update sound_folder set name = $1', [basename(fresh)])
      })
    } catch (error) {
      await rm(fresh, { recursive: true, force: true })
      throw isRefusal(error) ? notABackup(`Its rows do not go together: ${error.message}.`) : error
    }
    await rm(old, { recursive: true, force: true })
    return came
  })

/** Removes folders of sounds that a restore left when it was cut off; none where the one that counts is not there. */
export const clearOldSounds = async (db: Database): Promise<void> => {
  const kept = basename(await soundFolder(db.directory, db))
  const names = await readdir(db.directory)
  if (!names.includes(kept)) return
  for (const name of names)
    if (/^sounds(-[0-9a-f-]+)?$/.test(name) && name !== kept && !isUnderWay(name))
      await rm(join(db.directory, name), { recursive: true, force: true })
}
