import { expect, test } from '@playwright/test'
import { hasPostgres, type PostgresServer, startPostgres } from '../postgres.ts'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { hearsNothing, open } from './page.ts'
import { call } from './server.ts'

test.skip(!hasPostgres, 'PostgreSQL is not installed here')

const data = emptyData()
let postgres: PostgresServer
let programs: readonly Running[] = []
test.beforeAll(async () => {
  postgres = await startPostgres()
  const env = { DATABASE_URL: postgres.newDatabase() }
  programs = await Promise.all([startServer(data, '0', [], env), startServer(data, '0', [], env)])
})
test.afterAll(async () => {
  await Promise.all(programs.map((program) => program.end()))
  postgres.end()
  removeData(data)
})
const at = (i: 0 | 1): string => (programs[i] as Running).address

test('while the database is away it is told, what is typed waits, and both programs have it afterwards', async ({
  browser,
}) => {
  const { id } = (await call(at(0), 'POST', 'charts', { title: 'Two Bridges', text: '| Dm7 | G7 | Cmaj7 | % |' })).body
  const tags = async (i: 0 | 1): Promise<readonly string[]> => (await call(at(i), 'GET', `charts/${id}`)).body.tags
  expect(await tags(1)).toEqual([])
  const pages = await Promise.all([0, 1].map(() => browser.newPage()))
  for (const page of pages) await hearsNothing(page)
  for (const [i, page] of pages.entries()) await open(page, `${at(i as 0 | 1)}charts?chart=${id}`)
  const [first, second] = pages as [(typeof pages)[0], (typeof pages)[0]]
  const type = async (page: typeof first, text: string): Promise<void> => {
    await page.getByLabel('Tags').fill(text)
    await page.getByLabel('Tags').blur()
  }

  postgres.stop('immediate')
  await type(first, 'upper deck')
  await expect(first.getByText('held in this browser', { exact: false }).first()).toBeVisible()
  expect((await call(at(1), 'GET', 'charts')).body).toMatchObject({ status: 503, code: 'no_database' })
  expect((await call(at(1), 'GET', 'health')).status).toBe(503)
  const told = await browser.newPage()
  await told.goto(`${at(1)}desk`)
  await expect(told.getByRole('alert').first()).toContainText('database server is not answering')

  postgres.start()
  await expect.poll(() => tags(1), { timeout: 30_000 }).toEqual(['upper deck'])
  await type(second, 'lower deck')
  await second.getByRole('button', { name: 'Keep this one' }).click()
  await expect.poll(() => tags(0), { timeout: 15_000 }).toEqual(['lower deck'])
  expect((await call(at(0), 'GET', 'health')).status).toBe(200)
})

test('one of two programs is killed: the other goes on, and every row that was acknowledged is there', async () => {
  const kept: string[] = []
  const save = async (i: 0 | 1, note: string): Promise<void> => {
    const { status, body } = await call(at(i), 'POST', 'ideas', { overlay: 'B dorian', chord: 'Eb7', note })
    if (status === 201) kept.push(body.id)
  }
  await Promise.all(Array.from({ length: 20 }, (_, n) => save((n % 2) as 0 | 1, `before ${n}`)))
  const cut = Array.from({ length: 20 }, (_, n) => save(0, `at ${n}`).catch(() => undefined))
  await (programs[0] as Running).end('SIGKILL')
  await Promise.all(cut)
  for (let n = 0; n < 5; n++) await save(1, `after ${n}`)
  expect(kept.length).toBeGreaterThanOrEqual(25)
  for (const id of kept) expect((await call(at(1), 'GET', `ideas/${id}`)).status, id).toBe(200)
})
