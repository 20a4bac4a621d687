import { expect, test } from '@playwright/test'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'
import { call } from './server.ts'

const CLIENTS = 8
/** So many of them in every run; `KILLS` asks for more. */
const KILLS = Number(process.env.KILLS ?? 3)
const SAVES = 70 * KILLS

/** Saves until told to stop; what was acknowledged is remembered, what was cut off is not. */
const client = async (base: string, name: string, going: () => boolean, saved: Map<string, string>): Promise<void> => {
  for (let i = 0; going(); i++) {
    const note = `${name} ${i}`
    try {
      const { status, body } = await call(base, 'POST', 'ideas', { overlay: 'B minor pentatonic', chord: 'Eb7', note })
      if (status === 201) saved.set(body.id, note)
    } catch {
      return
    }
  }
}

test('no acknowledged idea is lost or changed when the server is killed while saving', async () => {
  test.setTimeout(120_000 + KILLS * 20_000)
  const data = emptyData()
  const saved = new Map<string, string>()
  let server: Running
  for (let kill = 0; kill < KILLS; kill++) {
    server = await startServer(data)
    const until = Math.ceil((SAVES * (kill + 1)) / KILLS)
    let killed = false
    const clients = Array.from({ length: CLIENTS }, (_, c) =>
      client(server.address, `${kill} ${c}`, () => !killed, saved),
    )
    while (saved.size < until) await new Promise((resolve) => setTimeout(resolve, 2))
    await server.end('SIGKILL')
    killed = true
    await Promise.all(clients)
  }
  expect(saved.size).toBeGreaterThanOrEqual(SAVES)
  server = await startServer(data)
  for (const [id, note] of saved) {
    const { status, body } = await call(server.address, 'GET', `ideas/${id}`)
    expect([status, body.note, body.overlay, body.version]).toEqual([200, note, 'B minor pentatonic', 1])
  }
  expect(await server.end('SIGTERM')).toBe(0)
  removeData(data)
})

test('told to stop while much is worked out and there is much to back up, it ends by itself, and all of it is there', async () => {
  test.slow()
  const data = emptyData()
  let server = await startServer(data)
  const text = Array.from({ length: 400 }, (_, i) => `| ${'CDEFGAB'[i % 7]}m7 G7 `).join('')
  const make = (i: number) => call(server.address, 'POST', 'charts', { title: `Fender ${i}`, text })
  let made = 0
  for (let i = 0; i < 600; i += 20)
    for (const { status } of await Promise.all(Array.from({ length: 20 }, (_, k) => make(i + k))))
      if (status === 201) made++
  expect(made).toBeGreaterThan(400)
  const plan = { text: '| Dm7 G7 | Cmaj7 A7 '.repeat(60), families: ['pentatonic', 'triad', 'mode', 'seventh'] }
  const asked = [1, 2, 3].map(() => call(server.address, 'POST', 'routes/plan', plan).catch(() => null))
  const backup = fetch(`${server.address}api/v1/backup`).catch(() => null)
  await new Promise((resolve) => setTimeout(resolve, 150))
  expect(await server.end('SIGTERM')).toBe(0)
  await Promise.all([...asked, backup])
  server = await startServer(data)
  const { body } = await call(server.address, 'GET', 'charts?limit=1&sort=title')
  expect(body.items[0].text).toBe(text)
  let [count, after] = [0, '']
  do {
    const page = (await call(server.address, 'GET', `charts?limit=200&after=${encodeURIComponent(after)}`)).body
    count += page.items.length
    after = page.next ?? ''
  } while (after !== '')
  expect(count).toBe(made)
  await server.end()
  removeData(data)
})
