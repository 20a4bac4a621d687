import { spawn, spawnSync } from 'node:child_process'
import {
  closeSync,
  cpSync,
  mkdtempSync,
  openSync,
  readdirSync,
  readFileSync,
  rmSync,
  truncateSync,
  writeFileSync,
  writeSync,
} from 'node:fs'
import { type AddressInfo, createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { strFromU8, unzipSync } from 'fflate'
import { emptyData, ROOT, type Running, removeData, startServer } from '../serving.ts'
import { complaints, open } from './page.ts'
import { call } from './server.ts'

const data = emptyData()
let server: Running
test.beforeAll(async () => {
  server = await startServer(data)
})
test.afterAll(async () => {
  await server.end()
  removeData(data)
})

const chart = (title: string) => ({ title, text: `title = ${title}\n| Bbm7 | Eb7 | Abmaj7 | % |` })
const make = async (title: string): Promise<string> =>
  (await call(server.address, 'POST', 'charts', chart(title))).body.id
const titles = async (): Promise<string[] | undefined> =>
  (await call(server.address, 'GET', 'charts?sort=title&limit=200')).body.items?.map((c: { title: string }) => c.title)
const backup = async (): Promise<Uint8Array<ArrayBuffer>> =>
  new Uint8Array(await (await fetch(`${server.address}api/v1/backup`)).arrayBuffer())
const restore = (
  query: string,
  body: BodyInit,
  headers: Record<string, string> = { 'content-type': 'application/zip' },
) => fetch(`${server.address}api/v1/restore${query}`, { method: 'POST', headers, body })
const setUp = (page: Page) => open(page, `${server.address}set-up?section=backup`)
const button = (page: Page, name: string | RegExp) => page.getByRole('button', { name, exact: true })

/** Does what makes the page begin anew, and waits until it has. */
const begunAnew = async (page: Page, work: () => Promise<void>): Promise<void> => {
  const anew = page.waitForEvent('load')
  await work()
  await anew
  await page.waitForSelector('html[data-ready]')
}

test('a player saves a backup, loses a chart, and brings everything back; then goes back to what was before that', async ({
  page,
}) => {
  const said = complaints(page)
  const lost = await make('Paddle Steamer')
  await setUp(page)
  const saving = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save a backup' }).click()
  const file = await (await saving).path()

  await call(server.address, 'DELETE', `charts/${lost}`)
  await make('After the Backup')
  await page.getByLabel('Bring in a backup …').setInputFiles({
    name: 'mine.zip',
    mimeType: 'application/zip',
    buffer: readFileSync(file),
  })
  await expect(page.getByRole('dialog')).toContainText('It holds 1 chart')
  expect(await titles()).toEqual(['After the Backup'])
  await begunAnew(page, () => button(page, 'Put it in place of what is here').click())
  expect(await titles()).toEqual(['Paddle Steamer'])

  await setUp(page)
  await expect(page.getByRole('list', { name: 'Backups beside the data' })).toContainText('before going back: 1 chart')
  await button(page, /^Go back to \d/)
    .first()
    .click()
  await begunAnew(page, () => button(page, 'Add it to what is here').click())
  expect(await titles()).toEqual(['After the Backup', 'Paddle Steamer'])

  await setUp(page)
  await page.getByLabel('Bring in a backup …').setInputFiles({
    name: 'no backup.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from('no zip at all'),
  })
  await expect(page.getByRole('alert')).toContainText('This is no backup')
  await expect(page.getByRole('alert')).toContainText('nothing changed')
  expect(await titles()).toHaveLength(2)
  expect(said.filter((s) => !s.includes('400'))).toEqual([])
})

test('a script backs up, looks into it, and restores it as it is or in a form', async () => {
  const kept = await titles()
  const zip = await backup()
  const manifest = JSON.parse(strFromU8(unzipSync(zip)['backup.json'] as Uint8Array))
  expect(manifest).toMatchObject({ schema: (await call(server.address, 'GET', 'health')).body.schema })
  await make('Of the moment')
  expect(await (await restore('?look=true', zip)).json()).toMatchObject({ holds: { charts: kept?.length }, how: null })
  const form = new FormData()
  form.set('file', new Blob([zip]), 'backup.zip')
  const answer = await restore('', form, {})
  expect([answer.status, await answer.json()]).toEqual([
    200,
    expect.objectContaining({ how: 'replace', before: expect.stringMatching(/before-going-back\.zip$/) }),
  ])
  expect(await titles()).toEqual(kept)
  const foreign = await restore('', zip, { 'content-type': 'application/zip', origin: 'http://elsewhere.example' })
  expect(foreign.status).toBe(403)
})

test('a restore that is killed half-way leaves what was there before', async () => {
  for (let i = 0; i < 300; i++) await make(`Full ${i}`)
  const full = await backup()
  for (const { id } of (await call(server.address, 'GET', 'charts?q=Full&limit=200')).body.items)
    await call(server.address, 'DELETE', `charts/${id}`)
  const before = await titles()
  for (const after of [20, 60, 120, 200]) {
    const bringing = restore('', full).catch(() => null)
    await new Promise((resolve) => setTimeout(resolve, after))
    await server.end('SIGKILL')
    const done = (await bringing)?.ok ?? false
    server = await startServer(data)
    const there = await titles()
    expect(there, `killed after ${after} ms`).toEqual(done ? expect.anything() : before)
    expect((await call(server.address, 'GET', 'health')).body.status).toBe('ok')
    expect(readdirSync(data).filter((name) => name.startsWith('sounds')).length).toBeLessThanOrEqual(1)
    if (done) break
  }
})

test('a clean stop keeps a backup; damaged data is told on every screen, and what still reads is saved', async ({
  page,
}) => {
  await make('Last of all')
  expect(await server.end()).toBe(0)
  const [last] = readdirSync(join(data, 'backups'))
    .filter((n) => n.endsWith('.zip'))
    .sort()
    .reverse()
  expect(last).toMatch(/at-a-clean-stop\.zip$/)
  server = await startServer(data)
  const count = (await call(server.address, 'GET', 'backups')).body.items[0].holds.charts
  expect(await server.end()).toBe(0)

  const tables = readdirSync(join(data, 'pg/base/5')).map((name) => join(data, 'pg/base/5', name))
  const charts = tables.filter((t) => readFileSync(t).includes('title = Full 7'))
  for (const table of charts) truncateSync(table, 8192)
  server = await startServer(data)
  expect(server.printed()).toContain('The data is damaged: charts, ')
  const { status, body } = await call(server.address, 'GET', 'health')
  expect([status, body.code]).toEqual([503, 'damaged'])
  for (const view of ['desk', 'charts', 'set-up?section=backup']) {
    await open(page, `${server.address}${view}`)
    await expect(page.getByRole('alert').first()).toContainText('The data is damaged')
  }
  const saving = page.waitForEvent('download')
  await page.getByRole('link', { name: 'Save what still reads' }).click()
  const readable = unzipSync(readFileSync(await (await saving).path()))
  expect(JSON.parse(strFromU8(readable['charts.json'] as Uint8Array)).length).toBeLessThan(count)

  await button(page, /^Go back to \d/)
    .first()
    .click()
  await begunAnew(page, () => button(page, 'Put it in place of what is here').click())
  expect((await titles())?.length).toBe(Math.min(200, count))
  expect((await call(server.address, 'GET', 'health')).body.status).toBe('ok')
  await open(page, `${server.address}desk`)
  await expect(page.getByText('The data is damaged')).toHaveCount(0)
})

test('data that cannot be opened is left alone, and the program goes back to its last backup when it is told to', async () => {
  const kept = await titles()
  expect(await server.end()).toBe(0)
  truncateSync(join(data, 'pg/global/pg_control'), 0)
  await expect(startServer(data)).rejects.toThrow(/is damaged and was not opened.*--go-back/)
  await expect(startServer(data)).rejects.toThrow(/is damaged and was not opened/)
  server = await startServer(data, '0', ['--go-back'])
  expect(server.printed()).toMatch(/Gone back to .*at-a-clean-stop\.zip/)
  expect(await titles()).toEqual(kept)
  expect(readdirSync(data).filter((n) => n.startsWith('pg.damaged-'))).toHaveLength(1)
})

/** A small disk of its own, or null where this process may mount none. */
const smallDisk = (): string | null => {
  const place = mkdtempSync(join(tmpdir(), 'crossfade-disk-'))
  return spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=90m', 'tmpfs', place]).status === 0 ? place : null
}
/** Takes every byte of a disk that is left. */
const fill = (path: string): void => {
  const file = openSync(path, 'w')
  try {
    for (;;) writeSync(file, Buffer.alloc(1024 * 1024))
  } catch {
  } finally {
    closeSync(file)
  }
}

test('on a full disk what is typed is held, what was kept is shown, and it goes on by itself when there is room', async ({
  page,
}) => {
  const disk = smallDisk()
  test.skip(disk === null, 'no disk can be mounted here')
  if (disk === null) return
  const own = join(disk, 'data')
  cpSync(emptyData(), own, { recursive: true })
  const small = await startServer(own)
  try {
    const { id } = (await call(small.address, 'POST', 'charts', chart('Low Water'))).body
    await open(page, `${small.address}charts?chart=${id}`)
    fill(join(disk, 'full'))
    const refused = await call(small.address, 'POST', 'charts', chart('Too Much'))
    expect([refused.status, refused.body.code]).toEqual([507, 'disk_full'])
    expect((await call(small.address, 'GET', 'backup').catch(() => null))?.status).toBe(507)
    await page.getByRole('textbox', { name: 'Chart text' }).click()
    await page.keyboard.press('Control+End')
    await page.keyboard.type('| Db7 |')
    await expect(page.getByText(/The disk is full.*held in this browser/).first()).toBeVisible()
    expect((await call(small.address, 'GET', `charts/${id}`)).body.title).toBe('Low Water')
    expect((await call(small.address, 'GET', 'health')).status).toBe(200)

    rmSync(join(disk, 'full'))
    await expect.poll(async () => (await call(small.address, 'GET', `charts/${id}`)).body.text).toContain('| Db7 |')
    fill(join(disk, 'full'))
  } finally {
    expect(await small.end()).toBe(0)
    spawnSync('umount', [disk])
    rmSync(disk, { recursive: true, force: true })
  }
})

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo
      probe.close(() => resolve(port))
    })
  })

test('a demo that is killed while it loads goes on where it was, and loads nothing twice', async () => {
  test.slow()
  const port = await freePort()
  const address = `http://127.0.0.1:${port}/`
  const start = (demo: string) => {
    const child = spawn('node', ['scripts/demo.mjs'], {
      cwd: ROOT,
      env: { ...process.env, HOST: '127.0.0.1', PORT: String(port), CROSSFADE_DATA: demo },
    })
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()))
    const ready = new Promise<void>((resolve, reject) => {
      child.stdout.on('data', (chunk: Buffer) => chunk.includes('http://') && resolve())
      child.once('exit', (code) => reject(new Error(`the demo ended with ${code}`)))
    })
    ready.catch(() => undefined)
    const end = (signal: NodeJS.Signals) => {
      child.kill(signal)
      return ended
    }
    return { ready, end }
  }
  const newDemo = (): string => {
    const demo = emptyData()
    writeFileSync(join(demo, 'DEMO'), 'new\n')
    return demo
  }
  const countOf = async (kind: string): Promise<number> =>
    (await call(address, 'GET', `${kind}?limit=200`).catch(() => null))?.body.items?.length ?? 0
  const counts = () => Promise.all(['charts', 'ideas', 'routes', 'lines', 'items', 'takes', 'log'].map(countOf))

  const [first, second] = [newDemo(), newDemo()]
  const whole = start(first)
  await whole.ready
  const wanted = await counts()
  await whole.end('SIGTERM')
  for (const kind of ['lines', 'takes']) {
    const cut = start(second)
    await expect.poll(() => countOf(kind), { intervals: [5], timeout: 60_000 }).toBeGreaterThan(0)
    await cut.end('SIGKILL')
  }
  expect(readFileSync(join(second, 'DEMO'), 'utf8')).toBe('new\n')
  const again = start(second)
  await again.ready
  expect(await counts()).toEqual(wanted)
  await again.end('SIGTERM')
  for (const demo of [first, second]) removeData(demo)
})
