import { expect, type Page, test } from '@playwright/test'
import { houseAddresses } from '../../src/server/devices/where.mjs'
import { seeded } from '../bench/seeded.ts'
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
  await expect.poll(() => tags(1)).toEqual([])
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
  await expect.poll(() => tags(0)).toEqual(['lower deck'])
  expect((await call(at(0), 'GET', 'health')).status).toBe(200)
})

test('the door opened through one program stands open at the other too, and is shut with it', async () => {
  const { port } = new URL(at(1))
  const outside = async (): Promise<readonly string[]> =>
    Promise.all(
      houseAddresses().map((address) =>
        fetch(`http://${address}:${port}/health`).then(
          ({ status }) => `answers ${status}`,
          () => 'nobody',
        ),
      ),
    )
  await call(at(0), 'PUT', 'door', { open: true })
  await expect.poll(outside).toEqual(houseAddresses().map(() => 'answers 200'))
  await call(at(0), 'PUT', 'door', { open: false })
  await expect.poll(outside).toEqual(houseAddresses().map(() => 'nobody'))
})

/** So many edits in every run; `EDITS` asks for more. */
const EDITS = Number(process.env.EDITS ?? 24)

test('two programs, two browsers each, edits at random, connections cut: nothing acknowledged is lost, and who came late is asked', async ({
  browser,
}) => {
  test.setTimeout(120_000 + EDITS * 6000)
  const random = seeded(EDITS)
  const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
  const { id } = (await call(at(0), 'POST', 'charts', { title: 'Four Hands', text: '| Dm7 |' })).body
  const kept = async () => (await call(at(0), 'GET', `charts/${id}`)).body
  /** What the programs said they kept, by its version: each version once, whoever sent it. */
  const acknowledged = new Map<number, { readonly text: string; readonly tags: readonly string[] }>()
  const twice: number[] = []
  const pages = await Promise.all(
    ([0, 0, 1, 1] as const).map(async (program) => {
      const page = await (await browser.newContext()).newPage()
      page.on('response', async (response) => {
        if (response.request().method() !== 'PUT' || !response.ok() || !response.url().includes(id)) return
        const { version, text, tags } = await response.json()
        if (acknowledged.has(version)) twice.push(version)
        acknowledged.set(version, { text, tags })
      })
      await open(page, `${at(program)}charts?chart=${id}`)
      await expect(page.getByRole('textbox', { name: 'Chart text' })).toContainText('Dm7')
      return page
    }),
  )
  let asked = 0
  const answer = async (page: Page): Promise<void> => {
    const choices = page.getByRole('button', { name: /^(Keep this one|Take that one)$/ })
    if ((await choices.count()) === 0) return
    asked++
    await choices
      .nth(random() < 0.5 ? 0 : 1)
      .click({ timeout: 2000 })
      .catch(() => undefined)
  }
  const edit = async (page: Page, n: number): Promise<void> => {
    await answer(page)
    if (random() < 0.4) {
      await page.getByLabel('Tags').fill(`set ${n}`)
      return page.getByLabel('Tags').blur()
    }
    await page.getByRole('textbox', { name: 'Chart text' }).click()
    await page.keyboard.press('Control+End')
    await page.keyboard.type(` C6 ${'D6 '.repeat(n % 3)}|`)
  }
  for (let n = 0; n < EDITS; n++) {
    const some = pages.filter(() => random() < 0.5)
    const cut = random()
    const offline = pick(pages)
    if (cut < 0.2) await offline.context().setOffline(true)
    else if (cut < 0.3) postgres.stop('immediate')
    await Promise.all(some.map((page) => edit(page, n)))
    await offline.waitForTimeout(200 + random() * 500)
    if (cut < 0.2) await offline.context().setOffline(false)
    else if (cut < 0.3) postgres.start()
  }
  const settled = async (): Promise<string> => {
    for (const page of pages) await answer(page)
    const states = await Promise.all(
      pages.map((page) => page.getByRole('region', { name: 'Text' }).getByRole('status').last().innerText()),
    )
    const texts = await Promise.all(pages.map((page) => page.getByRole('textbox', { name: 'Chart text' }).innerText()))
    const { text } = await kept()
    return states.every((s) => s.startsWith('Kept')) && texts.every((t) => t === text)
      ? 'settled'
      : JSON.stringify({ states, texts, text })
  }
  await expect.poll(settled, { timeout: 60_000 }).toBe('settled')
  expect(asked).toBeGreaterThan(0)
  expect(twice).toEqual([])
  const last = await kept()
  const known = acknowledged.get(last.version)
  if (known) expect({ text: last.text, tags: last.tags }).toEqual(known)
  expect(Math.max(...acknowledged.keys())).toBeLessThanOrEqual(last.version)
  console.log(`${acknowledged.size} acknowledged, version ${last.version}, asked ${asked} times`)
  for (const page of pages) await page.context().close()
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
