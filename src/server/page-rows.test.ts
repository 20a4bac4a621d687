import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from './database.ts'
import { pageRows } from './page-rows.ts'
import { createRow, deleteRow, type Row, updateRow } from './rows.ts'
import type { Database } from './sql.ts'

const directory = mkdtempSync(join(tmpdir(), 'crossfade-page-'))
let db: Database
const chart = (title: string, text = '| C6 | F7 |'): Promise<Row> => createRow(db, 'charts', { title, text, tags: [] })
const page = (asked: Partial<Parameters<typeof pageRows>[1]> = {}) =>
  pageRows(db, { chart: null, isSketch: false, ...asked })

beforeAll(async () => {
  db = await openDatabase(directory)
})
afterAll(async () => {
  await db.close()
  rmSync(directory, { recursive: true })
})

describe('what a page is made from', () => {
  it('is nothing at all in an empty program', async () => {
    expect(await page()).toEqual({ titles: [], ideas: [], settings: [], chartId: null, chart: null, route: null })
  })

  it('is the chart its address names, else the one changed last; a sketch needs none', async () => {
    const [fore, aft] = [await chart('Fore'), await chart('Aft')]
    expect((await page()).chart?.title).toBe('Aft')
    await updateRow(db, 'charts', fore.id, 1, { title: 'Fore peak', text: '| C6 |', tags: [] })
    expect((await page()).chart?.title).toBe('Fore peak')
    expect((await page({ chart: aft.id })).chart?.title).toBe('Aft')
    expect((await page({ isSketch: true })).chartId).toBeNull()
    expect((await page({ chart: 'nowhere' })).chartId).toBeNull()
    expect((await page()).titles.map((t) => t.title)).toEqual(['Aft', 'Fore peak'])
  })

  it('names a long chart and leaves it to the browser to fetch; one that does not read is still shown', async () => {
    const long = await chart('Long haul', '| C6 F7 |\n'.repeat(300))
    expect(await page()).toMatchObject({ chartId: long.id, chart: null })
    const odd = await chart('Odd', '| H7 |')
    expect((await page()).chart?.id).toBe(odd.id)
    await deleteRow(db, 'charts', odd.id)
    await deleteRow(db, 'charts', long.id)
  })

  it('has the route in hand of that chart, only where it is as a route should be', async () => {
    const { id: chartId } = await chart('Upriver')
    const route = { name: 'Upwind', chartId, steps: [{ bar: 1, beat: 1, overlay: 'C6' }], inHand: true }
    expect((await page()).route).toBeNull()
    await createRow(db, 'routes', { ...route, name: 'Aside', inHand: false })
    expect((await page()).route).toBeNull()
    await createRow(db, 'routes', route)
    expect((await page()).route?.name).toBe('Upwind')
    await createRow(db, 'routes', { ...route, name: 'Broken', steps: [{ bar: 'x' }] })
    expect((await page({ chart: chartId })).route).toBeNull()
  })

  it('has the latest ideas, and no setting larger than any the page writes', async () => {
    for (let i = 0; i < 30; i++)
      await createRow(db, 'ideas', { overlay: 'B dorian', chord: 'Eb7', tags: [], note: `${i}` })
    const bytes = Array.from({ length: 60_000 }, () => Math.random().toString(36).charAt(2)).join('')
    await createRow(db, 'settings', { name: 'huge', value: bytes.repeat(4) })
    await createRow(db, 'settings', { name: 'clef', value: 'bass' })
    const { ideas, settings } = await page()
    expect(ideas.map((i) => i.note).slice(0, 2)).toEqual(['29', '28'])
    expect(ideas).toHaveLength(24)
    expect(settings.map((s) => s.name)).toEqual(['clef'])
  })
})
