import { randomUUID } from 'node:crypto'
import { isUnwritable } from './check.ts'
import { KINDS, type Kind, type KindName } from './kinds.ts'
import { fieldError, fieldProblem, Problem } from './problems.ts'
import { CHANGES, IN_HAND, SIZED_EVERY, STATEMENTS } from './queries.ts'
import type { Database, Sql } from './sql.ts'

/** A kept row as the interface shows it. */
export type Row = Readonly<Record<string, unknown>> & {
  readonly id: string
  readonly version: number
  readonly createdAt: string
  readonly updatedAt: string
}
export type Stored = Readonly<Record<string, unknown>> & {
  readonly id: string
  readonly version: number
  readonly createdAt: Date
  readonly updatedAt: Date
  readonly deletedAt: Date | null
}

/** The row as it travels: moments as text. */
export const present = ({ deletedAt: _, cursor: __, ...row }: Stored): Row =>
  Object.fromEntries(Object.entries(row).map(([k, v]) => [k, v instanceof Date ? v.toISOString() : v])) as Row

const valuesOf = (kind: Kind, fields: Readonly<Record<string, unknown>>): unknown[] =>
  kind.fields.map((f) => {
    const value = fields[f.field] ?? f.unsaid ?? null
    return f.jsonb ? JSON.stringify(value) : value
  })

const editable = (kind: Kind, row: Readonly<Record<string, unknown>>) =>
  Object.fromEntries(kind.fields.map((f) => [f.field, row[f.field]]))

const notFound = (kind: KindName, id: string) => new Problem('not_found', `There is no row ${id} in ${kind}.`)

/** A row by its id, whether it stands or is deleted. What could not be an id is none. */
const stored = async (
  sql: Sql,
  name: KindName,
  id: string,
  how: 'read' | 'hold' = 'read',
): Promise<Stored | undefined> => {
  if (isUnwritable(id)) return undefined
  const [row] = await sql.query<Stored>(STATEMENTS[name][how], [id])
  return row
}

const live = async (sql: Sql, kind: Kind, id: string, how: 'read' | 'hold' = 'read'): Promise<Stored> => {
  const row = await stored(sql, kind.name, id, how)
  if (!row || row.deletedAt !== null) throw notFound(kind.name, id)
  return row
}

/** Makes room for a route that is to be in hand; gives the one that was. */
const putAway = async (
  sql: Sql,
  kind: KindName,
  id: string,
  { inHand, chartId }: Readonly<Record<string, unknown>>,
): Promise<string | null> => {
  if (kind !== 'routes' || inHand !== true || typeof chartId !== 'string') return null
  const [other] = await sql.query<{ id: string }>(IN_HAND.putAway, [chartId, id])
  return other?.id ?? null
}

interface Told {
  readonly step: string | null
  /** The route that was in hand before. */
  readonly putAway: string | null
}

const record = async (
  sql: Sql,
  kind: KindName,
  action: 'create' | 'update' | 'delete',
  before: Row | null,
  after: Row | null,
  { step, putAway }: Told = { step: null, putAway: null },
): Promise<string> => {
  await sql.query(CHANGES.clearRedo)
  const id = (after ?? before)?.id
  if (step !== null) {
    const [same] = await sql.query<{ id: string }>(CHANGES.goOn, [kind, id, JSON.stringify(after), step, putAway])
    if (same) return same.id
  }
  const images = [JSON.stringify(before), JSON.stringify(after)]
  const [change] = await sql.query<{ id: string }>(CHANGES.add, [kind, id, action, ...images, step, putAway])
  const made = change?.id ?? '0'
  await sql.query(CHANGES.letGo, [made])
  if (Number(made) % SIZED_EVERY === 0) await sql.query(CHANGES.letGoLarge)
  return made
}

/** What the database refuses by a named constraint, in the interface's words. */
const refused = (error: unknown): never => {
  const constraint = (error as { constraint?: string }).constraint
  if (constraint !== undefined && /^(ideas|routes|lines|takes)_chart_fk$/.test(constraint))
    throw fieldProblem('chartId', 'There is no chart of that id.', '', ['the id of a chart, or null'])
  if (constraint === 'lines_route_fk')
    throw fieldProblem('routeId', 'There is no route of that id.', '', ['the id of a route, or null'])
  if (constraint === 'log_entries_item_fk' || constraint === 'takes_item_fk')
    throw fieldProblem('itemId', 'There is no item of that id.', '', ['the id of an item, or null'])
  if (constraint === 'settings_name_once')
    throw new Problem('name_taken', 'A setting of that name is kept already.', [fieldError('name', 'taken', '')])
  throw error
}

/** The row, or null where there is none of that id any more. */
export const rowOrNull = async (db: Database, name: KindName, id: string): Promise<Row | null> => {
  const row = await stored(db, name, id)
  return row && row.deletedAt === null ? present(row) : null
}

export const getRow = async (db: Database, name: KindName, id: string): Promise<Row> =>
  present(await live(db, KINDS[name], id))

/** Makes a row: under an id of the caller's, where one is given; `step` is a word that changes undone together share. */
export const createRow = (
  db: Database,
  name: KindName,
  fields: Readonly<Record<string, unknown>>,
  { id, step }: { readonly id: string | null; readonly step: string | null } = { id: null, step: null },
): Promise<Row> =>
  db
    .transaction(async (sql) => {
      const kind = KINDS[name]
      if (id !== null) await idFree(sql, name, id)
      if (name === 'settings') await nameFree(sql, String(fields.name))
      const own = id ?? randomUUID()
      const before = await putAway(sql, name, own, fields)
      const [row] = await sql.query<Stored>(STATEMENTS[kind.name].insert, [own, ...valuesOf(kind, fields)])
      const made = present(row as Stored)
      await record(sql, name, 'create', null, made, { step, putAway: before })
      return made
    })
    .catch(refused)

const idFree = async (sql: Sql, name: KindName, id: string): Promise<void> => {
  const taken = await stored(sql, name, id, 'hold')
  if (!taken) return
  const current = taken.deletedAt === null ? present(taken) : null
  throw new Problem('id_taken', `There is a row ${id} in ${name} already.`, [fieldError('id', 'taken', id)], current)
}

const nameFree = async (sql: Sql, name: string): Promise<void> => {
  const [taken] = await sql.query<{ id: string }>('select id from settings where name = $1 and deleted_at is null', [
    name,
  ])
  if (!taken) return
  const current = present(await live(sql, KINDS.settings, taken.id))
  throw new Problem('name_taken', `The setting ${name} is kept already.`, [fieldError('name', 'taken', name)], current)
}

export const updateRow = (
  db: Database,
  name: KindName,
  id: string,
  version: number,
  fields: Readonly<Record<string, unknown>>,
  step: string | null = null,
): Promise<Row> =>
  db
    .transaction(async (sql) => {
      const kind = KINDS[name]
      const before = present(await live(sql, kind, id, 'hold'))
      if (before.version !== version)
        throw new Problem(
          'stale_version',
          `You changed version ${version}; version ${before.version} stands.`,
          [],
          before,
        )
      const other = await putAway(sql, name, id, fields)
      const [row] = await sql.query<Stored>(STATEMENTS[kind.name].update, [id, ...valuesOf(kind, fields)])
      const after = present(row as Stored)
      await record(sql, name, 'update', before, after, { step, putAway: other })
      return after
    })
    .catch(refused)

export const deleteRow = (db: Database, name: KindName, id: string) =>
  db.transaction(async (sql) => {
    const kind = KINDS[name]
    const before = present(await live(sql, kind, id, 'hold'))
    const [row] = await sql.query<Stored>(STATEMENTS[kind.name].remove, [id])
    const change = await record(sql, name, 'delete', before, null)
    const undo = { method: 'POST', path: '/api/v1/undo', body: { change } }
    return { id, deletedAt: row?.deletedAt?.toISOString() ?? null, change, undo }
  })

interface Change {
  readonly id: string
  readonly kind: KindName
  readonly rowId: string
  readonly action: 'create' | 'update' | 'delete'
  readonly before: Row | null
  readonly after: Row | null
  readonly putAway: string | null
}

/** Brings a row to an image: null means gone. Its version goes up either way. */
const bringTo = async (sql: Sql, change: Change, image: Row | null): Promise<Row | null> => {
  const kind = KINDS[change.kind]
  const { update, remove } = STATEMENTS[kind.name]
  if (image) await putAway(sql, change.kind, change.rowId, image)
  const [row] = image
    ? await sql.query<Stored>(update, [change.rowId, ...valuesOf(kind, editable(kind, image))])
    : await sql.query<Stored>(remove, [change.rowId])
  return row && image ? present(row) : null
}

export interface Undone {
  readonly change: string
  /** The row's id, also where it is gone. */
  readonly id: string
  readonly action: Change['action']
  readonly kind: KindName
  readonly row: Row | null
}

const currentOf = async (sql: Sql, change: Change): Promise<Row | null> => {
  const row = await stored(sql, change.kind, change.rowId)
  return row && row.deletedAt === null ? present(row) : null
}

/** Takes back the last change, or a given one where nothing came after it on the same row. */
export const undo = (db: Database, given: string | null): Promise<Undone> =>
  db
    .transaction(async (sql) => {
      const [change] = await sql.query<Change>(
        given === null ? CHANGES.lastStanding : CHANGES.standing,
        given === null ? [] : [given],
      )
      if (!change) throw new Problem('nothing_to_undo', 'Nothing was changed that could be taken back.')
      const [again] = await sql.query(CHANGES.changedAgain, [change.rowId, change.id])
      if (again)
        throw new Problem(
          'changed_since',
          'The row was changed again after that; both are shown.',
          [],
          await currentOf(sql, change),
        )
      const row = await bringTo(sql, change, change.before)
      if (change.putAway !== null) await sql.query(IN_HAND.takeUp, [change.putAway])
      await sql.query(CHANGES.markUndone, [change.id])
      return { change: change.id, id: change.rowId, action: change.action, kind: change.kind, row }
    })
    .catch(refused)

/** Does again what was last undone, as long as nothing new was written since. */
export const redo = (db: Database, given: string | null): Promise<Undone> =>
  db
    .transaction(async (sql) => {
      const [change] = await sql.query<Change>(
        given === null ? CHANGES.lastUndone : CHANGES.undone,
        given === null ? [] : [given],
      )
      if (!change) throw new Problem('nothing_to_redo', 'Nothing was undone that could be done again.')
      const [before] = await sql.query(CHANGES.undoneBefore, [change.rowId, change.id])
      if (before)
        throw new Problem(
          'changed_since',
          'An earlier change of the same row is still taken back: do that one again first.',
          [],
          await currentOf(sql, change),
        )
      const row = await bringTo(sql, change, change.after)
      await sql.query(CHANGES.markStanding, [change.id])
      return { change: change.id, id: change.rowId, action: change.action, kind: change.kind, row }
    })
    .catch(refused)
