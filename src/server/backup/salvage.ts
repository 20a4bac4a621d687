import type { Database } from '../sql.ts'
import { BACKED_UP, type BackedUp } from './tables.ts'
import { type BackupAsked, type Page, shownRows, writePages } from './write-backup.ts'

const BLOCK = 8192
/** No page of a table holds more rows. */
const MOST_IN_BLOCK = 291

const blocksOf = async (db: Database, table: string): Promise<number> => {
  const [size] = await db.query<{ blocks: number }>(
    `select ceil(pg_relation_size('${table}') / ${BLOCK}.0)::int as blocks`,
  )
  return size?.blocks ?? 0
}

/** The rows of one block, or where that does not read, those of its places that do. */
const rowsOfBlock = async (db: Database, table: BackedUp, block: number): Promise<Page> => {
  const at = (from: string, to: string) =>
    db.query<Page[number]>(`${shownRows(table)} where t.ctid >= '${from}'::tid and t.ctid < '${to}'::tid`)
  try {
    return await at(`(${block},0)`, `(${block + 1},0)`)
  } catch {
    const found: Page[number][] = []
    for (let place = 1; place <= MOST_IN_BLOCK; place++)
      found.push(...(await at(`(${block},${place})`, `(${block},${place + 1})`).catch(() => [])))
    return found
  }
}

/** What rows refer to; one whose other end does not read refers to nothing, or cannot be without it. */
const REFERENCES = { chartId: 'charts', itemId: 'items', routeId: 'routes' } as const

const standingAlone = (text: string, saved: ReadonlyMap<string, ReadonlySet<string>>): string => {
  const row = JSON.parse(text) as Record<string, unknown>
  const lost = Object.entries(REFERENCES).filter(
    ([field, kind]) => typeof row[field] === 'string' && !saved.get(kind)?.has(String(row[field])),
  )
  return lost.length === 0
    ? text
    : JSON.stringify({ ...row, ...Object.fromEntries(lost.map(([field]) => [field, null])) })
}

/** Writes a backup of every row that still reads, block by block, and of the sounds of those takes. */
export const writeReadable = (db: Database, path: string, asked: BackupAsked) => {
  const saved = new Map<string, Set<string>>()
  async function* pages(table: BackedUp): AsyncGenerator<Page> {
    const ids = new Set<string>()
    saved.set(table.name, ids)
    const blocks = await blocksOf(db, table.table).catch(() => 0)
    for (let block = 0; block < blocks; block++) {
      const rows = await rowsOfBlock(db, table, block)
      const own = rows.filter((r) => !ids.has(r.key[0] ?? '') || table.kind === null)
      const kept = table.kind === null ? own.filter((r) => saved.get('takes')?.has(r.key[0] ?? '')) : own
      for (const { key } of kept) ids.add(key[0] ?? '')
      yield kept.map((r) => ({ ...r, row: standingAlone(r.row, saved) }))
    }
  }
  return writePages(db, path, asked, async (spool) => {
    for (const table of BACKED_UP) await spool(table, pages(table))
    return { state: 'of what reads', takes: [...(saved.get('takes') ?? [])] }
  })
}
