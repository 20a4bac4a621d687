import { isUnwritable } from './check.ts'
import { KINDS, type KindName } from './kinds.ts'
import { fieldProblem, type Problem } from './problems.ts'
import { type Sort, STATEMENTS } from './queries.ts'
import { present, type Row, type Stored } from './rows.ts'
import type { Database } from './sql.ts'

const NO_PLACE = ['what next answered']
const noPlace = (after: string | null): Problem =>
  fieldProblem('after', 'after is not a place in this list.', after, NO_PLACE)
/** The codes of values that are not of their column's kind. */
const isBadValue = (error: unknown): boolean => /^22/.test((error as { code?: string }).code ?? '')

export interface ListAsked {
  readonly q: string
  readonly sort: Sort
  readonly limit: number
  readonly after: string | null
  /** Only what lies over this chart. */
  readonly chartId?: string | null
  /** Only these of a row's fields, beside its id, version and moments. */
  readonly fields?: readonly string[] | null
}
type Listed = Stored & { readonly cursor: string }
type Cursor = readonly [key: string, id: string]

const page = async (
  db: Database,
  name: KindName,
  { q, sort, after, chartId = null, fields = null }: ListAsked,
  from: Cursor | null,
  count: number,
) => {
  const pattern = `%${q.replace(/[\\%_]/g, '\\$&')}%`
  const [key, id] = from ?? [null, null]
  const ofChart = KINDS[name].hasChart ? [chartId] : []
  return db
    .query<Listed>(STATEMENTS[name].list(sort, fields), [pattern, key, id, count, ...ofChart])
    .catch((error: unknown) => {
      throw after !== null && isBadValue(error) ? noPlace(after) : error
    })
}

/** A list ends early where its rows come to so many signs; how many are read first, to see how long they are. */
const MOST_SIGNS = 4_000_000
const FIRST_READ = 32

/** Kept rows in order, as many as were asked for or as fit in one answer; `next` leads on where there are more. */
export const listRows = async (
  db: Database,
  name: KindName,
  asked: ListAsked,
): Promise<{ items: readonly Row[]; next: string | null }> => {
  const items: Row[] = []
  let signs = 0
  let at: Cursor | null = asked.after === null ? null : readCursor(asked.after)
  for (;;) {
    const wanted = asked.limit - items.length
    const fit = items.length === 0 ? FIRST_READ : Math.floor((MOST_SIGNS - signs) / (signs / items.length + 1))
    const count = Math.max(1, Math.min(wanted, fit))
    const found: readonly Listed[] = await page(db, name, asked, at, count + 1)
    let taken = 0
    while (taken < Math.min(count, found.length) && signs <= MOST_SIGNS) {
      const row = found[taken++] as Listed
      items.push(present(row))
      signs += JSON.stringify(row).length
      at = [row.cursor, row.id]
    }
    if (taken === found.length) return { items, next: null }
    if (items.length >= asked.limit || signs > MOST_SIGNS) return { items, next: at && writeCursor(...at) }
  }
}

const writeCursor = (key: string, id: string): string => Buffer.from(JSON.stringify([key, id])).toString('base64url')
const readCursor = (after: string): readonly [string, string] => {
  try {
    const read: unknown = JSON.parse(Buffer.from(after, 'base64url').toString())
    const isPlace = Array.isArray(read) && read.every((r) => typeof r === 'string' && !isUnwritable(r))
    if (isPlace && read.length === 2) return [read[0], read[1]]
  } catch {}
  throw noPlace(after)
}
