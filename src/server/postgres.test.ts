import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { hasPostgres, type PostgresServer, startPostgres } from '../../tests/postgres.ts'
import { findDamage } from './backup/damage.ts'
import { openDatabase } from './database.ts'
import { NEWEST_SCHEMA } from './migrations.ts'
import { moveTo } from './move.ts'
import { openPostgres } from './postgres.ts'
import { Problem } from './problems.ts'
import { createRow, deleteRow, getRow, redo, undo, updateRow } from './rows.ts'

const directory = mkdtempSync(join(tmpdir(), 'crossfade-on-a-server-'))
let server: PostgresServer
beforeAll(async () => {
  if (hasPostgres) server = await startPostgres()
})
afterAll(() => {
  server?.end()
  rmSync(directory, { recursive: true })
})

/** So many times the server is killed in every run; `KILLS` asks for more. */
const KILLS = Number(process.env.KILLS ?? 3)

const codeOf = (error: unknown): string => (error instanceof Problem ? error.code : String(error))
const idea = (note: string) => ({ overlay: 'B dorian', chord: 'Eb7', note, tags: [] })

describe.skipIf(!hasPostgres)('data on a PostgreSQL server', () => {
  it('opened by four at once is brought to the newest schema once, and shared', async () => {
    const url = server.newDatabase()
    const all = await Promise.all([1, 2, 3, 4].map(() => openPostgres(url, directory)))
    const [first, second] = all as [(typeof all)[0], (typeof all)[0]]
    const versions = await first.query<{ version: number }>('select version from schema_version order by version')
    expect(versions.map((v) => v.version)).toEqual(Array.from({ length: NEWEST_SCHEMA }, (_, i) => i + 1))
    const { id } = await createRow(first, 'ideas', idea('from one'))
    expect((await getRow(second, 'ideas', id)).note).toBe('from one')
    await Promise.all(all.map((db) => db.close()))
  })

  it('changed by two programs at once loses nothing that was acknowledged, and tells who came late', async () => {
    const url = server.newDatabase()
    const both = await Promise.all([openPostgres(url, directory), openPostgres(url, directory)])
    const { id } = await createRow(both[0], 'charts', { title: 'Tug', text: '| C |', tags: [] })
    const acknowledged: string[] = []
    const codes = new Set<string>()
    await Promise.all(
      Array.from({ length: 6 }, async (_, client) => {
        const db = both[client % 2] as (typeof both)[0]
        for (let i = 0; i < 20; i++) {
          const { version, tags } = await getRow(db, 'charts', id)
          const tag = `${client} ${i}`
          await updateRow(db, 'charts', id, version, {
            title: 'Tug',
            text: '| C |',
            tags: [...(tags as []), tag],
          }).then(
            () => acknowledged.push(tag),
            (error: unknown) => codes.add(codeOf(error)),
          )
        }
      }),
    )
    const row = await getRow(both[1], 'charts', id)
    expect([...(row.tags as string[])].sort()).toEqual([...acknowledged].sort())
    expect(row.version).toBe(1 + acknowledged.length)
    expect([...codes]).toEqual(['stale_version'])
    await Promise.all(both.map((db) => db.close()))
  })

  it('that goes away is told in words, goes on by itself, and has every row that was acknowledged', {
    timeout: 60_000 + KILLS * 10_000,
  }, async () => {
    const db = await openPostgres(server.newDatabase(), directory)
    const acknowledged = new Map<string, string>()
    const codes = new Set<string>()
    const heard: { readonly news: string; readonly id?: string }[] = []
    await db.listen((told) => heard.push(JSON.parse(told)))
    let isOver = false
    const clients = Array.from({ length: 8 }, async (_, client) => {
      for (let i = 0; !isOver; i++) {
        const note = `${client} ${i}`
        await createRow(db, 'ideas', idea(note)).then(
          ({ id }) => acknowledged.set(id, note),
          (error: unknown) => codes.add(codeOf(error)),
        )
        await new Promise((resolve) => setTimeout(resolve, 2))
      }
    })
    for (let kill = 1; kill <= KILLS; kill++) {
      while (acknowledged.size < kill * 60) await new Promise((resolve) => setTimeout(resolve, 5))
      server.stop('immediate')
      await expect(db.query('select 1')).rejects.toMatchObject({ code: 'no_database' })
      await expect(findDamage(db)).rejects.toMatchObject({ code: 'no_database' })
      server.start()
    }
    isOver = true
    await Promise.all(clients)
    expect([...codes]).toEqual(['no_database'])
    const rows = await db.query<{ id: string; note: string }>('select id, note from ideas')
    const kept = new Map(rows.map((r) => [r.id, r.note]))
    expect([...acknowledged].filter(([id, note]) => kept.get(id) !== note)).toEqual([])
    // What was told while it was away went by unheard, and that is told; then all goes on.
    const isHeard = async (): Promise<boolean> => {
      const { id } = await createRow(db, 'ideas', idea('after all'))
      await new Promise((resolve) => setTimeout(resolve, 100))
      return heard.some((h) => h.id === id)
    }
    await expect.poll(isHeard, { timeout: 10_000 }).toBe(true)
    expect(heard.some((h) => h.news === 'missed')).toBe(true)
    await db.close()
  })

  it('is carried over from a directory and back, every row and what can be undone as it was', async () => {
    const [first, second] = [mkdtempSync(join(tmpdir(), 'crossfade-a-')), mkdtempSync(join(tmpdir(), 'crossfade-b-'))]
    const here = await openDatabase(first)
    const text = '| Cmaj7 | "; drop table charts; -- \\ {,} null NULL ♭ |'
    const chart = await createRow(here, 'charts', { title: 'Slip, "way" {}', text, tags: ['a,b', 'NULL', '', '"q"'] })
    await updateRow(here, 'charts', chart.id, 1, { title: 'Slipway', text, tags: [] })
    for (let i = 0; i < 450; i++)
      await createRow(here, 'ideas', { ...idea(`tide ${i}`), beat: 1 / 3, chartId: chart.id })
    await createRow(here, 'settings', { name: 'lamp', value: { a: [1, 0.1, null], b: null } })
    await createRow(here, 'settings', { name: 'bell', value: null })
    await deleteRow(here, 'ideas', (await createRow(here, 'ideas', idea('gone'))).id)
    await undo(here, null)

    const there = await openPostgres(server.newDatabase(), first)
    expect(await moveTo(here, there)).toMatchObject({ charts: 1, ideas: 451, settings: 2, door: 1 })
    await expect(moveTo(here, there)).rejects.toThrow(/There is data already/)
    const back = await openDatabase(second)
    await moveTo(there, back)
    const all = 'select kind, row_id, action, before, after, undone_as, id::text from changes order by id'
    expect(await back.query(all)).toEqual(await here.query(all))
    for (const db of [there, back]) {
      expect(await findDamage(db)).toEqual([])
      expect(await redo(db, null)).toMatchObject({ action: 'delete' })
      expect(await getRow(db, 'charts', chart.id)).toMatchObject({ title: 'Slipway', text, version: 2 })
      expect((await createRow(db, 'ideas', idea('new'))).version).toBe(1)
      expect(await undo(db, null)).toMatchObject({ action: 'create', row: null })
    }
    for (const db of [here, there, back]) await db.close()
    for (const directory of [first, second]) rmSync(directory, { recursive: true })
  })

  it('that is nowhere is told at the start', async () => {
    const url = server.newDatabase().replace(/:\d+\//, ':1/')
    await expect(openPostgres(url, directory)).rejects.toMatchObject({ code: 'no_database' })
  })
})
