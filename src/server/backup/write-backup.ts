import { createHash } from 'node:crypto'
import { createReadStream, createWriteStream } from 'node:fs'
import { appendFile, mkdir, open, rename, rm, stat } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { ZipFile } from 'yazl'
import { soundFile, soundFolder } from '../sounds.ts'
import type { Database, Sql } from '../sql.ts'
import {
  MANIFEST,
  type Manifest,
  type Member,
  manifestOf,
  type Occasion,
  printManifest,
  rowsMember,
  soundMember,
} from './manifest.ts'
import { BACKED_UP, type BackedUp } from './tables.ts'
import { nameUnderWay } from './under-way.ts'

/** Rows are read so many at a time. */
const PAGE = 200

const quoted = ([field, column]: readonly [string, string]): string => `t.${column} as "${field}"`

/** Rows of a table as JSON texts, with what they are told apart by. */
export type Page = readonly { readonly row: string; readonly live: boolean; readonly key: readonly string[] }[]

const has = ({ columns }: BackedUp, column: string): boolean => columns.some(([, c]) => c === column)

/** Asks for rows of a table in the form of a backup. */
export const shownRows = (table: BackedUp): string =>
  `select row_to_json(shown)::text as row, ${has(table, 'deleted_at') ? 't.deleted_at is null' : 'true'} as live,
      array[${table.key.map((k) => `t.${k}::text`).join(', ')}] as key
    from ${table.table} t, lateral (select ${table.columns.map(quoted).join(', ')}) as shown`

async function* pagesOf(sql: Sql, table: BackedUp): AsyncGenerator<Page> {
  const keys = table.key.map((k) => `t.${k}`).join(', ')
  const parameters = table.key.map((k, i) => `$${i + 1}::${k === 'n' ? 'integer' : 'text'}`).join(', ')
  let after: readonly string[] = []
  for (;;) {
    const place = after.length === 0 ? '' : `where (${keys}) > (${parameters})`
    const page: Page = await sql.query(`${shownRows(table)} ${place} order by ${keys} limit ${PAGE}`, after)
    yield page
    if (page.length < PAGE) return
    after = page.at(-1)?.key ?? []
  }
}

/** Writes a table as a JSON array, one row a line; gives how many rows are not deleted. */
const spool = async (pages: AsyncIterable<Page>, path: string): Promise<number> => {
  let [rows, live] = [0, 0]
  await appendFile(path, '[')
  for await (const page of pages) {
    live += page.filter((r) => r.live).length
    await appendFile(path, page.map((r) => `${rows++ === 0 ? '' : ','}\n${r.row}`).join(''))
  }
  await appendFile(path, '\n]\n')
  return live
}

/** By this one sees whether anything was written since. */
const STATE = BACKED_UP.map((table) => {
  const latest = has(table, 'updated_at') ? 'max(updated_at)' : 'max(at)'
  return `select count(*)::text || ' ' || coalesce(${latest}::text, '') as state from ${table.table}`
}).join(' union all ')

export const stateOf = async (sql: Sql): Promise<string> => {
  const states = await sql.query<{ state: string }>(STATE)
  return createHash('sha256')
    .update(states.map((s) => s.state).join('\n'))
    .digest('hex')
}

const TAKES_WITH_SOUND = `select id from takes where jsonb_typeof(sound) = 'object' order by id`

/** Passes bytes on while counting them and reckoning their checksum. */
const measured = (told: (member: Member) => void): Transform => {
  const hash = createHash('sha256')
  let bytes = 0
  return new Transform({
    transform(chunk: Buffer, _, done) {
      hash.update(chunk)
      bytes += chunk.length
      done(null, chunk)
    },
    flush(done) {
      told({ bytes, sha256: hash.digest('hex') })
      done()
    },
  })
}

interface Part {
  readonly name: string
  readonly path: string
  /** So many bytes of it, at least one: it may be growing. */
  readonly bytes: number
  readonly compress: boolean
}

/** Packs the parts, and last what tells of them. */
const pack = async (path: string, parts: readonly Part[], tell: (members: Record<string, Member>) => Manifest) => {
  const zip = new ZipFile()
  const members: Record<string, Member> = {}
  for (const part of parts)
    zip.addReadStreamLazy(part.name, { compress: part.compress }, (give) => {
      const through = measured((member) => {
        members[part.name] = member
      })
      const source = createReadStream(part.path, { end: part.bytes - 1 })
      source.once('error', (error) => through.destroy(error))
      give(null, source.pipe(through))
    })
  zip.addReadStreamLazy(MANIFEST, {}, (give) => {
    give(null, Readable.from([printManifest(tell(members))]))
  })
  const written = pipeline(zip.outputStream, createWriteStream(path, { flush: true }))
  const failed = new Promise<never>((_, reject) => zip.once('error', reject))
  zip.end()
  await Promise.race([written, failed])
}

export interface BackupAsked {
  readonly occasion: Occasion
  /** Sounds that come to more than so many bytes are left where they are. */
  readonly mostSound: number
  readonly version: string
}

const sizesOf = async (folder: string, ids: readonly string[]): Promise<readonly Part[]> => {
  const found = await Promise.all(
    ids.map(async (id) => {
      const path = soundFile(folder, id)
      return { name: soundMember(id), path, bytes: (await stat(path).catch(() => null))?.size ?? 0, compress: false }
    }),
  )
  return found.filter((p) => p.bytes > 0)
}

/** What a folder names is on disk. */
export const syncFolder = async (folder: string): Promise<void> => {
  const handle = await open(folder)
  await handle.sync().finally(() => handle.close())
}

interface Spooled {
  readonly state: string
  /** Takes that say they have a sound. */
  readonly takes: readonly string[]
}
type Spool = (table: BackedUp, pages: AsyncIterable<Page>) => Promise<void>

/** Packs what `write` spools, and the sounds of its takes, into a zip that stands at `path` whole and on disk, or not at all. */
export const writePages = async (
  db: Database,
  path: string,
  { occasion, mostSound, version }: BackupAsked,
  write: (spool: Spool) => Promise<Spooled>,
): Promise<void> => {
  db.hasRoomFor(0)
  const spooled = join(dirname(path), `making-${nameUnderWay()}`)
  await mkdir(spooled, { recursive: true })
  try {
    const holds: Record<string, number> = {}
    const { state, takes } = await write(async (table, pages) => {
      const live = await spool(pages, join(spooled, rowsMember(table.name)))
      if (table.kind !== null) holds[table.name] = live
    })
    const rows = await Promise.all(
      BACKED_UP.map(async ({ name }) => {
        const file = join(spooled, rowsMember(name))
        return { name: rowsMember(name), path: file, bytes: (await stat(file)).size, compress: true }
      }),
    )
    const sounds = await sizesOf(await soundFolder(db.directory, db), takes)
    const fit = sounds.reduce((sum, s) => sum + s.bytes, 0) <= mostSound
    const packed = join(spooled, 'backup.zip')
    await pack(packed, [...rows, ...(fit ? sounds : [])], (members) =>
      manifestOf({
        ...{ version, schema: db.schemaVersion, made: new Date().toISOString(), occasion, holds, state, members },
        ...{ sounds: fit ? sounds.length : 0, soundsLeft: fit ? 0 : sounds.length },
      }),
    )
    await rename(packed, path)
    await syncFolder(dirname(path))
  } finally {
    await rm(spooled, { recursive: true, force: true })
  }
}

/** Writes every row, of one moment, and the sounds of takes. */
export const writeBackup = (db: Database, path: string, asked: BackupAsked): Promise<void> =>
  writePages(db, path, asked, (write) =>
    db.snapshot(async (sql) => {
      for (const table of BACKED_UP) await write(table, pagesOf(sql, table))
      const takes = await sql.query<{ id: string }>(TAKES_WITH_SOUND)
      return { takes: takes.map((t) => t.id), state: await stateOf(sql) }
    }),
  )
