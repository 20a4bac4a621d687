import { request } from 'node:http'
import AxeBuilder from '@axe-core/playwright'
import { expect, test } from '@playwright/test'
import { houseAddresses } from '../../src/server/devices/where.mjs'
import { complaints, open } from './page.ts'
import { call, serverOfFile } from './server.ts'

const server = serverOfFile()

/** A proxy on this machine asks for somebody of another one: that is how somebody from elsewhere is played here. */
const ELSEWHERE = { 'x-forwarded-for': '192.0.2.77' }
const base = (): string => server.address

interface Door {
  readonly open: boolean
  readonly addresses: readonly string[]
  readonly code: { readonly digits: string } | null
  readonly shutUntil: string | null
  readonly devices: readonly { readonly id: string; readonly name: string }[]
}
const atMachine = async (method: string, path: string, body?: unknown): Promise<Door> => {
  const answer = await call(base(), method, path, body)
  expect(answer.status, `${method} ${path}`).toBe(200)
  return answer.body
}
const newCode = async (): Promise<string> => (await atMachine('POST', 'door/code')).code?.digits ?? ''

/** Gives a code from elsewhere, as the form does. */
const give = async (code: string, name = 'Stand') => {
  const response = await fetch(`${base()}door`, {
    method: 'POST',
    redirect: 'manual',
    headers: ELSEWHERE,
    body: new URLSearchParams({ code, name }),
  })
  return { status: response.status, cookie: response.headers.get('set-cookie'), text: await response.text() }
}
const paired = async (name = 'Stand'): Promise<string> => {
  const { status, cookie } = await give(await newCode(), name)
  expect(status).toBe(303)
  expect(cookie).toMatch(/HttpOnly; SameSite=Strict/)
  return cookie?.split(';')[0] ?? ''
}

const STREAM = { accept: 'text/event-stream' }
test('a device hears what is changed elsewhere until it is turned out', async () => {
  const cookie = await paired('Look-out')
  const news = await fetch(`${base()}api/v1/changes`, { headers: { ...STREAM, ...ELSEWHERE, cookie } })
  expect(news.headers.get('content-type')).toBe('text/event-stream')
  const heard = news.text()
  const { id } = (await call(base(), 'POST', 'charts', { title: 'Lantern', text: '| Dm7 |' })).body
  await atMachine(
    'DELETE',
    `devices/${(await atMachine('GET', 'door')).devices.find((d) => d.name === 'Look-out')?.id}`,
  )
  await call(base(), 'DELETE', `charts/${id}`)
  expect(await heard).toMatch(new RegExp(`^retry: \\d+\n\ndata: .*"id" : "${id}".*\n\ndata: .*devices.*\n\n$`))
  for (const [headers, status] of [
    [{ ...STREAM, ...ELSEWHERE }, 401],
    [{}, 406],
  ] as const)
    expect((await fetch(`${base()}api/v1/changes`, { headers })).status).toBe(status)
})

test('who may do what from where', async () => {
  const cookie = await paired()
  const revoked = await paired('Lost on the pier')
  const lost = (await atMachine('GET', 'door')).devices.find((d) => d.name === 'Lost on the pier')
  await atMachine('DELETE', `devices/${lost?.id}`)
  const chart = { title: 'Capstan', text: '| Dm7 | G7 |' }
  const forged = cookie.replace(/\.(.)/, (_, sign) => `.${sign === 'A' ? 'B' : 'A'}`)
  const READ = ['GET', 'ask?q=E%20over%20D7', undefined] as const
  const WRITE = ['POST', 'charts', chart] as const
  const LET_IN = ['POST', 'door/code', {}] as const
  const rows: readonly (readonly [
    who: string,
    headers: Record<string, string>,
    read: number,
    write: number,
    letIn: number,
  ])[] = [
    ['this machine', {}, 200, 201, 200],
    ['a device that was let in', { ...ELSEWHERE, cookie }, 200, 201, 403],
    ['one that was not', ELSEWHERE, 401, 401, 401],
    ['a device that was revoked', { ...ELSEWHERE, cookie: revoked }, 401, 401, 401],
    ['a forged cookie', { ...ELSEWHERE, cookie: forged }, 401, 401, 401],
    ['one that says itself where it comes from', { ...ELSEWHERE, 'x-crossfade-from': 'here' }, 401, 401, 401],
    [
      'a page of another site, in a browser here',
      { origin: 'http://quay.example', 'sec-fetch-site': 'cross-site' },
      403,
      403,
      403,
    ],
    [
      'a page of another site, in a browser that was let in',
      { ...ELSEWHERE, cookie, origin: 'http://quay.example', 'sec-fetch-site': 'cross-site' },
      403,
      403,
      403,
    ],
  ]
  for (const [who, headers, read, write, letIn] of rows) {
    const said = []
    for (const [method, path, body] of [READ, WRITE, LET_IN])
      said.push((await call(base(), method, path, body, headers)).status)
    expect(said, who).toEqual([read, write, letIn])
  }
})

test('somebody from elsewhere sees where to put a code, and nothing else', async () => {
  const { addresses } = await atMachine('PUT', 'door', { open: true })
  expect(addresses.length).toBe(houseAddresses().length)
  for (const address of addresses) expect((await fetch(`${address}health`)).status).toBe(200)
  for (const path of ['', 'desk', 'charts?chart=1', 'icon.svg', 'set-up', '_astro/x.js', 'door/', '//door/..']) {
    const response = await fetch(base() + path, { headers: ELSEWHERE, redirect: 'manual' })
    expect([response.status, response.headers.get('location')], path).toEqual([303, '/door'])
    expect(await response.text()).toBe('')
  }
  for (const path of ['health', 'api/v1/charts', '%61pi/v1/charts', 'api/v1/nothing'])
    expect((await fetch(base() + path, { headers: ELSEWHERE })).status, path).toBe(401)
  await atMachine('PUT', 'door', { open: false })
  for (const address of addresses) await expect(fetch(`${address}health`)).rejects.toThrow()
  expect((await give('12345678')).status).toBe(401)
})

/** Asks under another name for this server, which a browser's page may have made up; gives the status. */
const underName = (host: string, path: string): Promise<number | undefined> =>
  new Promise((resolve, reject) => {
    request(`${base()}${path}`, { headers: { host } }, (answer) => {
      answer.resume()
      resolve(answer.statusCode)
    })
      .once('error', reject)
      .end()
  })

test('a name that somebody points here is not answered', async () => {
  const { port } = new URL(base())
  for (const path of ['api/v1/charts', 'desk', 'door'])
    expect(await underName(`quay.example:${port}`, path), path).toBe(403)
  expect(await underName(`localhost:${port}`, 'health')).toBe(200)
})

test('a telephone is let in by the code on the screen, is known by its name, and is turned out again', async ({
  browser,
}) => {
  await fetch(`${base()}api/v1/door`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: '{"open":true}',
  })
  const [here, there] = [
    await browser.newContext(),
    await browser.newContext({ extraHTTPHeaders: ELSEWHERE, viewport: { width: 390, height: 844 } }),
  ]
  const [machine, telephone] = [await here.newPage(), await there.newPage()]
  const said = complaints(machine)
  await open(machine, `${base()}set-up?section=telephones`)
  await machine.getByRole('button', { name: /^(Let a telephone in|A new code)$/ }).click()
  const part = machine.getByRole('region', { name: 'Telephones' })
  await expect(part.getByText(/^\d{4} \d{4}$/)).toBeVisible()
  const digits = (await part.getByText(/^\d{4} \d{4}$/).textContent()) ?? ''
  if (houseAddresses().length > 0) await expect(part.getByRole('img')).toBeVisible()
  expect((await new AxeBuilder({ page: machine }).analyze()).violations).toEqual([])

  await telephone.goto(`${base()}desk`)
  expect(new URL(telephone.url()).pathname).toBe('/door')
  expect((await new AxeBuilder({ page: telephone }).analyze()).violations).toEqual([])
  await telephone.getByLabel('Code').fill(digits)
  await telephone.getByLabel('Name of this device').fill('Stand of the alto')
  await telephone.getByRole('button', { name: 'Let me in' }).click()
  await telephone.waitForSelector('html[data-ready]')
  const { id } = (await call(base(), 'POST', 'charts', { title: 'Upper Deck', text: '| Dm7 | G7 |' })).body
  const tags = async (): Promise<readonly string[]> => (await call(base(), 'GET', `charts/${id}`)).body.tags
  const typeTags = async (text: string): Promise<void> => {
    await telephone.getByLabel('Tags').fill(text)
    await telephone.getByLabel('Tags').blur()
  }
  await open(telephone, `${base()}charts?chart=${id}`)
  await typeTags('late set')
  await expect.poll(tags).toEqual(['late set'])

  const row = part.getByRole('listitem').filter({ has: machine.getByLabel('Name of Stand of the alto') })
  await expect(row).toBeVisible()
  await row.getByRole('button', { name: /in no longer/ }).click()
  await expect(row).toHaveCount(0)
  await typeTags('late set, in rain')
  await expect(telephone.getByText('This device is let in no longer.', { exact: false })).toBeVisible()
  await telephone.goto(`${base()}door?code=${await newCode()}`)
  await telephone.getByRole('button', { name: 'Let me in' }).click()
  await telephone.waitForSelector('html[data-ready]')
  await expect.poll(tags).toEqual(['late set', 'in rain'])
  expect(said).toEqual([])
  await here.close()
  await there.close()
})

// The last: the door stays shut for a minute after it.
test('wrong, old and used codes let nobody in, and ten wrong ones shut the door', async () => {
  const old = await newCode()
  const code = await newCode()
  expect((await give(old === code ? '0' : old)).status).toBe(401)
  expect((await give('eight', 'Stand')).status).toBe(400)
  expect((await give(code, '  ')).status).toBe(400)
  expect((await give(code, '<b>"Stand"')).status).toBe(303)
  expect((await give(code)).status).toBe(401)
  const next = await newCode()
  let shut = 0
  for (let i = 1; i <= 12; i++) {
    const other = String((Number(next) + i) % 10 ** 8).padStart(8, '0')
    if ((await give(other)).status === 429) shut++
  }
  expect(shut).toBeGreaterThanOrEqual(2)
  const refused = await give(next)
  expect([refused.status, refused.cookie]).toEqual([429, null])
  expect((await atMachine('GET', 'door')).shutUntil).not.toBeNull()
  const [first] = (await atMachine('GET', 'door')).devices
  expect(first?.name).toBe('<b>"Stand"')
})
