import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hasPostgres, type PostgresServer, startPostgres } from '../../tests/postgres.ts'
import { openDatabase } from './database.ts'
import { KIND_NAMES, KINDS } from './kinds.ts'
import { listRows } from './lists.ts'
import { openPostgres } from './postgres.ts'
import { Problem } from './problems.ts'
import { CHANGES, IN_HAND, MOST_CHANGES, PAGE, PRACTICE, STATEMENTS, sortsOf } from './queries.ts'
import { createRow, deleteRow, getRow, redo, undo, updateRow } from './rows.ts'
import { type Database, TELL } from './sql.ts'

const chart = (title: string) => ({ title, text: `title = ${title}\n| C |`, tags: [] })
const code = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Problem ? error.code : String(error)),
  )

/** Where data can be: in a directory of its own, and on a server where Debian's is installed. */
const PLACES = ['in a directory', ...(hasPostgres ? ['on a server'] : [])]

describe.each(PLACES)('the data %s', (place) => {
  const directory = mkdtempSync(join(tmpdir(), 'crossfade-rows-'))
  let server: PostgresServer | null = null
  let db: Database
  beforeAll(async () => {
    server = place === 'on a server' ? await startPostgres() : null
    db = server ? await openPostgres(server.newDatabase(), directory) : await openDatabase(directory)
  })
  afterAll(async () => {
    await db.close()
    server?.end()
    rmSync(directory, { recursive: true })
  })

  it('tells each change with the word of its step, and what is taken back with none', async () => {
    const heard: object[] = []
    await db.listen((told) => heard.push(JSON.parse(told)))
    await new Promise((resolve) => setTimeout(resolve, 300))
    const { id } = await createRow(db, 'charts', chart('Told'), { id: null, step: 'a tab-0' })
    await updateRow(db, 'charts', id, 1, chart('Told twice'), 'a tab-1')
    await updateRow(db, 'charts', id, 2, chart('Told again'), 'a tab-1')
    await undo(db, null)
    await redo(db, null)
    await deleteRow(db, 'charts', id)
    await undo(db, null)
    for (let i = 0; i < 3; i++) await undo(db, null).catch(() => undefined)
    const told = ['a tab-0', 'a tab-1', 'a tab-1', null, null, 'gone', null, null, 'gone'].map((step) => ({
      ...{ news: 'row', kind: 'charts', id, gone: step === 'gone', step: step === 'gone' ? null : step },
    }))
    await expect.poll(() => heard).toEqual(told)
    await db.query(TELL, [JSON.stringify({ news: 'playing', bar: 3 })])
    await expect.poll(() => heard.at(-1)).toEqual({ news: 'playing', bar: 3 })
  })

  it('undoes and redoes making, changing and removing, and counts the version up each time', async () => {
    const made = await createRow(db, 'charts', chart('Bilge'))
    const changed = await updateRow(db, 'charts', made.id, 1, chart('Ballast'))
    expect(changed.version).toBe(2)
    await deleteRow(db, 'charts', made.id)
    expect(await code(getRow(db, 'charts', made.id))).toBe('not_found')

    expect(await undo(db, null)).toMatchObject({
      action: 'delete',
      kind: 'charts',
      row: { title: 'Ballast', version: 4 },
    })
    expect(await undo(db, null)).toMatchObject({ action: 'update', row: { title: 'Bilge', version: 5 } })
    expect(await undo(db, null)).toMatchObject({ action: 'create', row: null })
    expect(await code(getRow(db, 'charts', made.id))).toBe('not_found')

    expect(await redo(db, null)).toMatchObject({ action: 'create', row: { title: 'Bilge' } })
    expect(await redo(db, null)).toMatchObject({ action: 'update', row: { title: 'Ballast' } })
    const after = await createRow(db, 'charts', chart('Anew'))
    expect(await code(redo(db, null))).toBe('nothing_to_redo')
    expect(after.version).toBe(1)
  })

  it('never overwrites a version it did not read, and shows the row that stands', async () => {
    const { id } = await createRow(db, 'charts', chart('Keel'))
    await updateRow(db, 'charts', id, 1, chart('Keel two'))
    const stale = updateRow(db, 'charts', id, 1, chart('Keel three'))
    await expect(stale).rejects.toMatchObject({ code: 'stale_version', current: { title: 'Keel two', version: 2 } })
  })

  it('undoes a given change only where nothing came after it on the same row', async () => {
    const { id } = await createRow(db, 'ideas', { overlay: 'B dorian', chord: 'Eb7', tags: [] })
    const removed = await deleteRow(db, 'ideas', id)
    await undo(db, removed.change)
    expect(await code(undo(db, removed.change))).toBe('nothing_to_undo')
    const again = await deleteRow(db, 'ideas', id)
    const made = await db.query<{ id: string }>(
      "select id::text as id from changes where row_id = $1 and action = 'create'",
      [id],
    )
    expect(await code(undo(db, made[0]?.id ?? ''))).toBe('changed_since')
    expect(await code(undo(db, again.change))).toBe('done')
  })

  it('does again in the order it was done: the newer change of a row waits for the older', async () => {
    const { id } = await createRow(db, 'charts', chart('First'))
    await updateRow(db, 'charts', id, 1, chart('Second'))
    await updateRow(db, 'charts', id, 2, chart('Third'))
    const [newer, older] = [await undo(db, null), await undo(db, null)]
    expect(await code(redo(db, newer.change))).toBe('changed_since')
    expect(await redo(db, older.change)).toMatchObject({ row: { title: 'Second' } })
    expect(await redo(db, newer.change)).toMatchObject({ row: { title: 'Third' } })
  })

  it('undoes changes of one row that came under one word together, others one by one', async () => {
    const made = await createRow(db, 'charts', chart('Typed'), { id: null, step: 'a' })
    await updateRow(db, 'charts', made.id, 1, chart('Typed o'), 'a')
    await updateRow(db, 'charts', made.id, 2, chart('Typed on'), 'b')
    await updateRow(db, 'charts', made.id, 3, chart('Typed on and on'), 'b')
    const other = await createRow(db, 'charts', chart('Between'))
    await updateRow(db, 'charts', made.id, 4, chart('Typed later'), 'b')
    expect(await undo(db, null)).toMatchObject({ row: { title: 'Typed on and on' } })
    expect(await redo(db, null)).toMatchObject({ row: { title: 'Typed later' } })
    await undo(db, null)
    expect(await undo(db, null)).toMatchObject({ action: 'create', row: null })
    expect(await undo(db, null)).toMatchObject({ row: { title: 'Typed o', id: made.id } })
    expect(await redo(db, null)).toMatchObject({ row: { title: 'Typed on and on' } })
    await undo(db, null)
    expect(await undo(db, null)).toMatchObject({ action: 'create', row: null })
    expect(await code(getRow(db, 'charts', other.id))).toBe('not_found')
  })

  it('keeps a row once that is sent twice under its own id', async () => {
    const id = '0b9f8f5e-3c51-4b4e-9a38-5d0c7d1f2a10'
    const idea = { overlay: 'B dorian', chord: 'Eb7', tags: [] }
    expect((await createRow(db, 'ideas', idea, { id, step: null })).id).toBe(id)
    const again = createRow(db, 'ideas', idea, { id, step: null })
    await expect(again).rejects.toMatchObject({ code: 'id_taken', current: { id, version: 1 } })
  })

  it('lists what lies over one chart, however much lies over others', async () => {
    const [a, b] = [await createRow(db, 'charts', chart('Fore')), await createRow(db, 'charts', chart('Aft'))]
    const idea = { overlay: 'B dorian', chord: 'Eb7', tags: [] }
    const mine = await createRow(db, 'ideas', { ...idea, chartId: a.id })
    for (let i = 0; i < 5; i++) await createRow(db, 'ideas', { ...idea, chartId: b.id })
    const asked = { q: '', sort: '-updatedAt', limit: 2, after: null } as const
    const { items, next } = await listRows(db, 'ideas', { ...asked, chartId: a.id })
    expect([items.map((i) => i.id), next]).toEqual([[mine.id], null])
    expect((await listRows(db, 'ideas', { ...asked, chartId: 'nowhere' })).items).toEqual([])
  })

  it('points an idea at a chart that is there', async () => {
    const lost = createRow(db, 'ideas', { overlay: 'B+', chord: 'A7', tags: [], chartId: 'nowhere' })
    await expect(lost).rejects.toMatchObject({ code: 'bad_request', errors: [{ path: 'chartId' }] })
  })

  it('walks a list to its end in each order, every row once', async () => {
    for (let i = 0; i < 7; i++) await createRow(db, 'charts', chart(`Rope ${i}`))
    for (const sort of sortsOf(KINDS.ideas)) {
      const seen: string[] = []
      let after: string | null = null
      do {
        const page: Awaited<ReturnType<typeof listRows>> = await listRows(db, 'charts', {
          q: 'rope',
          sort,
          limit: 3,
          after,
        })
        seen.push(...page.items.map((r) => String(r.title)))
        after = page.next
      } while (after !== null)
      const upward = Array.from({ length: 7 }, (_, i) => `Rope ${i}`)
      expect(seen, sort).toEqual(sort === '-updatedAt' ? upward.reverse() : upward)
    }
  })

  it.each([
    'x',
    Buffer.from('["x","y"]').toString('base64url'),
    Buffer.from('["2026-01-01\\u0000","y"]').toString('base64url'),
    Buffer.from('{"0":"a"}').toString('base64url'),
    Buffer.from('["999999-01-01","y"]').toString('base64url'),
  ])('does not know %j as a place in a list', async (after) => {
    expect(await code(listRows(db, 'charts', { q: '', sort: '-updatedAt', limit: 3, after }))).toBe('bad_request')
  })

  it('gives of a list only what was asked for', async () => {
    await createRow(db, 'charts', chart('Hawser'))
    const { items } = await listRows(db, 'charts', {
      ...{ q: 'hawser', sort: 'title', limit: 5, after: null },
      fields: ['title', 'tags'],
    })
    expect(items.map((row) => Object.keys(row).sort())).toEqual([
      ['createdAt', 'id', 'tags', 'title', 'updatedAt', 'version'],
    ])
  })

  it('finds no row by what can be no id', async () => {
    for (const id of ['a\u0000b', '\ud800', '']) expect(await code(getRow(db, 'charts', id))).toBe('not_found')
  })

  it('keeps one setting of a name, also when another is made, renamed or brought back', async () => {
    const first = await createRow(db, 'settings', { name: 'lamp', value: 1 })
    const other = await createRow(db, 'settings', { name: 'bell', value: 1 })
    expect(await code(createRow(db, 'settings', { name: 'lamp', value: 2 }))).toBe('name_taken')
    expect(await code(updateRow(db, 'settings', other.id, 1, { name: 'lamp', value: 2 }))).toBe('name_taken')
    const gone = await deleteRow(db, 'settings', first.id)
    await createRow(db, 'settings', { name: 'lamp', value: 3 })
    expect(await code(undo(db, gone.change))).toBe('name_taken')
    expect((await getRow(db, 'settings', other.id)).name).toBe('bell')
  })

  it('ends a page of long rows early and leads on to the others', async () => {
    const text = '| C |\n'.repeat(300_000)
    for (let i = 0; i < 5; i++) await createRow(db, 'charts', { ...chart(`Sounding ${i}`), text })
    const seen: unknown[] = []
    let pages = 0
    for (let after: string | null = null, first = true; first || after !== null; first = false, pages++) {
      const page: Awaited<ReturnType<typeof listRows>> = await listRows(db, 'charts', {
        q: 'sounding',
        sort: 'title',
        limit: 200,
        after,
      })
      seen.push(...page.items.map((r) => r.title))
      after = page.next
    }
    expect(seen).toEqual([0, 1, 2, 3, 4].map((i) => `Sounding ${i}`))
    expect(pages).toBeGreaterThan(1)
  })

  it('has one route of a chart in hand; the one put away for it comes back with undo', async () => {
    const [{ id: chartId }, { id: other }] = [
      await createRow(db, 'charts', chart('Slip')),
      await createRow(db, 'charts', chart('Dock')),
    ]
    const route = (name: string, inHand = true, over = chartId) => ({
      name,
      chartId: over,
      inHand,
      steps: [{ bar: 1, overlay: null }],
    })
    const hand = async (): Promise<readonly unknown[]> =>
      (await listRows(db, 'routes', { q: '', after: null, limit: 50, sort: 'title', chartId })).items
        .filter((r) => r.inHand)
        .map((r) => r.name)
    const a = await createRow(db, 'routes', route('A'))
    await createRow(db, 'routes', route('Elsewhere', true, other))
    const b = await createRow(db, 'routes', route('B', false))
    expect(await hand()).toEqual(['A'])
    await updateRow(db, 'routes', b.id, 1, route('B'))
    expect(await hand()).toEqual(['B'])
    expect(await code(updateRow(db, 'routes', a.id, 1, route('A, stale')))).toBe('stale_version')
    expect(await undo(db, null)).toMatchObject({ row: { name: 'B', inHand: false } })
    expect(await hand()).toEqual(['A'])
    await redo(db, null)
    expect(await hand()).toEqual(['B'])
    const c = await createRow(db, 'routes', route('C'))
    await deleteRow(db, 'routes', c.id)
    expect(await hand()).toEqual([])
    await undo(db, null)
    expect(await hand()).toEqual(['C'])
    await undo(db, null)
    expect(await hand()).toEqual(['B'])
  })

  it('lets the oldest of its history go, and undoes what is left', async () => {
    const { id } = await createRow(db, 'charts', chart('Log'))
    await db.query(
      "select setval(pg_get_serial_sequence('changes', 'id'), (select max(id) from changes) + $1::bigint)",
      [MOST_CHANGES],
    )
    await updateRow(db, 'charts', id, 1, chart('Log two'))
    const [left] = await db.query<{ n: number }>('select count(*)::integer as n from changes')
    expect(left?.n).toBe(1)
    expect(await undo(db, null)).toMatchObject({ action: 'update', row: { title: 'Log' } })
    expect(await code(undo(db, null))).toBe('nothing_to_undo')
  })
})

describe('a data directory', () => {
  it('that is open is refused to a second one, with a sentence', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'crossfade-taken-'))
    const db = await openDatabase(directory)
    await expect(openDatabase(directory)).rejects.toThrow(/in use by another Crossfade/)
    await db.close()
    rmSync(directory, { recursive: true })
  })
})

describe('a database from a newer program', () => {
  it('is refused with a sentence and left as it is', async () => {
    const other = mkdtempSync(join(tmpdir(), 'crossfade-newer-'))
    const now = await openDatabase(other)
    await now.query('insert into schema_version (version) values (999)')
    await now.close()
    await expect(openDatabase(other)).rejects.toThrow(/written by a newer Crossfade \(schema 999/)
    await expect(openDatabase(other)).rejects.toThrow(/newer/)
    rmSync(other, { recursive: true })
  })
})

describe('every query', () => {
  it('is prepared by the database as it stands', async () => {
    const pg = await PGlite.create()
    const migrations = import.meta.glob<string>('./migrations/*.sql', { query: '?raw', import: 'default', eager: true })
    for (const text of Object.values(migrations)) await pg.exec(text)
    const perKind = KIND_NAMES.flatMap((name) => {
      const { list, ...rest } = STATEMENTS[name]
      return [...Object.values(rest), ...sortsOf(KINDS[name]).map((sort) => list(sort))]
    })
    const all = [
      ...perKind,
      ...Object.values(CHANGES),
      ...Object.values(IN_HAND),
      ...Object.values(PAGE),
      ...Object.values(PRACTICE),
    ]
    expect(all.length).toBeGreaterThan(20)
    for (const text of all) await pg.describeQuery(text)
    await pg.close()
  })
})
