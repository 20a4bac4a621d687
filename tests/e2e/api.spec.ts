import { readdirSync } from 'node:fs'
import { request as httpRequest } from 'node:http'
import { connect } from 'node:net'
import { expect, test } from '@playwright/test'
import { startServer } from '../serving.ts'
import { call, serverOfFile } from './server.ts'

const server = serverOfFile()

const get = (path: string) => call(server.address, 'GET', path)
const ask = (q: string) => get(`ask?q=${encodeURIComponent(q)}`)
const post = (path: string, body: unknown, headers?: Record<string, string>) =>
  call(server.address, 'POST', path, body, headers)

test('a reading has the contract’s fields, no more and no fewer', async () => {
  const { status, body } = await ask('B dorian over Eb7 to Abmaj7')
  expect(status).toBe(200)
  expect(Object.keys(body).sort()).toEqual(
    [
      'kind',
      'question',
      'home',
      'notes',
      'fade',
      'roughness',
      'counts',
      'worst',
      'keyDistance',
      'keyNearest',
      'commonTones',
      'guidesHeld',
      'statesChord',
      'landing',
      'noExit',
      'sounding',
      'mends',
      'same',
      'sentence',
    ].sort(),
  )
  expect(body).toMatchObject({
    kind: 'reading',
    question: { overlay: 'B dorian', chord: 'Eb7', next: 'Abmaj7', job: 'V of Ab' },
    home: { scale: 'Eb mixolydian', others: ['Eb half-whole', 'Eb altered', 'Eb lydian dominant', 'Eb whole tone'] },
    fade: 58,
    landing: 82,
    worst: { name: 'D', degree: '7', fade: 95 },
    counts: { chord: 1, extension: 0, altered: 4, suspension: 1, outside: 1 },
    commonTones: ['Db'],
    guidesHeld: 1,
    statesChord: false,
    noExit: [],
    sounding: null,
    keyDistance: 5,
    keyNearest: false,
  })
  expect(body.notes.map((n: { name: string; degree: string; rub: boolean }) => [n.name, n.degree, n.rub])).toEqual([
    ['B', 'b13', false],
    ['C#', 'b7', false],
    ['D', '7', true],
    ['E', 'b9', false],
    ['F#', '#9', false],
    ['G#', '11', false],
    ['A', '#11', false],
  ])
  expect(Object.keys(body.notes[0]).sort()).toEqual(
    [
      'name',
      'heard',
      'degree',
      'role',
      'inHome',
      'stated',
      'denied',
      'root',
      'guide',
      'rub',
      'keptBack',
      'fade',
      'exits',
    ].sort(),
  )
  expect(body.same).toEqual(['C# phrygian', 'D lydian', 'E mixolydian', 'F# aeolian', 'G# locrian', 'A ionian'])
})

const MIGRATIONS = readdirSync(new URL('../../src/server/migrations/', import.meta.url)).length

test('answers have their kind; a pair has its groups; a sounding chord is the one read', async () => {
  const pair = (await ask('A & Eb over A7 to Dmaj7')).body
  expect(pair.groups).toEqual([
    { name: 'A', degrees: ['1', '3', '5'] },
    { name: 'Eb', degrees: ['#11', 'b7', 'b9'] },
  ])
  expect(pair.exclusive).toBe(true)
  const alone = (await ask('B+ over A7')).body
  expect([alone.question.next, alone.question.job, alone.landing, alone.noExit]).toEqual([null, null, null, []])
  const heard = (await ask('Gb over Eb7 to Abmaj7 while Ebm7 sounds')).body
  expect([heard.question.chord, heard.sounding, heard.notes[0].degree]).toEqual(['Eb7', 'Ebm7', 'b3'])
  expect((await ask('E half-whole')).body).toMatchObject({ kind: 'material', periodSemitones: 3, distinct: 3 })
  expect((await ask('Ebmaj7')).body).toMatchObject({ kind: 'chord', symbol: 'Ebmaj7' })
  expect((await ask('| Dm7 G7 | Cmaj7 |')).body).toMatchObject({ kind: 'chart', bars: [{ number: 1 }, { number: 2 }] })
  expect((await get('chord?symbol=Eb7(b9,13)')).body).toEqual({
    symbol: 'Eb7(b9,13)',
    root: 'Eb',
    bass: 'Eb',
    family: 'dominant',
    guides: ['G', 'Db'],
    tones: [
      ['Eb', '1'],
      ['G', '3'],
      ['Bb', '5'],
      ['Db', 'b7'],
      ['Fb', 'b9'],
      ['C', '13'],
    ].map(([name, degree], i) => ({ name, degree, stated: i > 3 })),
  })
  expect((await get('health')).body).toMatchObject({ status: 'ok', schema: MIGRATIONS })
})

for (const [q, at] of [
  ['Hm7', 0],
  ['Cmaj77', 5],
  ['Bb foo over Eb7', 3],
  ['', 0],
] as const)
  test(`the question “${q}” is refused at ${at}`, async () => {
    const { status, type, body } = await ask(q)
    expect([status, type]).toEqual([400, 'application/problem+json'])
    expect(body.errors[0]).toMatchObject({ path: 'q', at })
    expect(Object.keys(body.errors[0]).sort()).toEqual(['at', 'expected', 'found', 'message', 'path'])
  })

test('what is not agreed is refused with its reason', async () => {
  const reason = async (answer: ReturnType<typeof call>) => {
    const { status, type, body } = await answer
    expect(type).toBe('application/problem+json')
    expect(body.status).toBe(status)
    return [status, body.code]
  }
  expect(await reason(get('ask'))).toEqual([400, 'bad_request'])
  expect(await reason(get('ask?q=C&q=D'))).toEqual([400, 'bad_request'])
  expect(await reason(get('harbour'))).toEqual([404, 'not_found'])
  expect(await reason(get('charts/none'))).toEqual([404, 'not_found'])
  expect(await reason(call(server.address, 'DELETE', 'ask'))).toEqual([405, 'method_not_allowed'])
  expect(await reason(post('ideas', 'overlay=B', { 'content-type': 'text/plain' }))).toEqual([415, 'not_json'])
  expect(await reason(post('ideas', '{"overlay":'))).toEqual([400, 'bad_request'])
  expect(await reason(post('ideas', { overlay: 'B dorian' }))).toEqual([400, 'bad_request'])
  expect(await reason(post('ideas', { overlay: 'B dorian', chord: 'Eb7', colour: 'red' }))).toEqual([
    400,
    'bad_request',
  ])
  expect(await reason(post('ideas', { overlay: 'B', chord: 'E7' }, { origin: 'http://quay.example' }))).toEqual([
    403,
    'foreign_origin',
  ])
  expect(await reason(post('ideas', { overlay: 'B', chord: 'E7' }, { origin: 'null' }))).toEqual([
    403,
    'foreign_origin',
  ])
  expect(await reason(post('charts', { title: 'x', text: '| C |'.padEnd(3_000_000) }))).toEqual([413, 'too_large'])
  expect(await reason(get('ideas?fields=overlay,harbour'))).toEqual([400, 'bad_request'])
  const chart = await post('charts', { title: 'x', text: '| Dm7 | Hm7 |' })
  expect([chart.status, chart.body.errors[0].path, chart.body.errors[0].at]).toEqual([400, 'text', 8])
  expect((await get('ideas')).body.items).toEqual([])
})

test('files say what they are, the framework’s own endpoint is shut, and a page of another site is answered nothing', async () => {
  const { hostname, port } = new URL(server.address)
  const asked = (path: string, headers: Record<string, string> = {}) =>
    new Promise<{ readonly status: number | undefined; readonly sniff: unknown }>((resolve, reject) => {
      httpRequest({ hostname, port, path, headers }, (r) => {
        r.resume()
        resolve({ status: r.statusCode, sniff: r.headers['x-content-type-options'] })
      })
        .on('error', reject)
        .end()
    })
  const page = await (await fetch(server.address)).text()
  const [, file = ''] = /(\/_astro\/[\w.-]+\.css)/.exec(page) ?? []
  expect(await asked(file)).toEqual({ status: 200, sniff: 'nosniff' })
  for (const path of ['/_image?href=x', '/_image', '//_image?href=http://quay.example/', '/%5Fimage?href=x'])
    expect((await asked(path)).status, path).toBe(404)
  const site = (name: string) => ({ 'sec-fetch-site': name })
  expect((await asked('/api/v1/ask?q=E', site('cross-site'))).status).toBe(403)
  expect((await asked('/api/v1/ask?q=E', site('same-origin'))).status).toBe(200)
  expect((await asked('/desk?over=E', site('cross-site'))).status).toBe(200)
})

test('a body without a stated length is still counted', async () => {
  const { hostname, port } = new URL(server.address)
  const status = await new Promise((resolve, reject) => {
    const sending = httpRequest(
      { hostname, port, path: '/api/v1/charts', method: 'POST', headers: { 'content-type': 'application/json' } },
      (r) => resolve(r.statusCode),
    )
    sending.on('error', reject)
    for (let i = 0; i < 3; i++) sending.write(' '.repeat(1_000_000))
    sending.end()
  })
  expect(status).toBe(413)
})

test('rows are made, read, changed with their version, removed and brought back', async () => {
  const made = await post('ideas', { overlay: 'B minor pentatonic', chord: 'Eb7', next: 'Abmaj7', tags: ['ferry'] })
  expect(made.status).toBe(201)
  expect(made.body).toMatchObject({ version: 1, note: null, chartId: null, bar: null, beat: null, tags: ['ferry'] })
  const { id } = made.body
  expect((await call(server.address, 'PUT', `ideas/${id}`, { overlay: 'B+', chord: 'A7' })).status).toBe(400)
  const changed = await call(server.address, 'PUT', `ideas/${id}`, { ...made.body, note: 'slow' })
  expect(changed.body).toMatchObject({ version: 2, note: 'slow' })
  const stale = await call(server.address, 'PUT', `ideas/${id}`, { ...made.body, note: 'fast' })
  expect([stale.status, stale.body.code, stale.body.current.note]).toEqual([409, 'stale_version', 'slow'])
  const removed = await call(server.address, 'DELETE', `ideas/${id}`)
  expect(removed.body).toMatchObject({ id, undo: { method: 'POST', path: '/api/v1/undo' } })
  expect((await get(`ideas/${id}`)).status).toBe(404)
  expect((await post('undo', removed.body.undo.body)).body).toMatchObject({
    action: 'delete',
    kind: 'ideas',
    row: { id, note: 'slow' },
  })
  expect((await get(`ideas/${id}`)).body.note).toBe('slow')
  expect((await get('ideas?limit=0')).status).toBe(400)
  expect((await get('ideas?q=pentatonic')).body).toMatchObject({ items: [{ id }], next: null })
})

test('a second server on the same data refuses with a sentence, and the first goes on', async () => {
  await expect(startServer(server.data)).rejects.toThrow(/ended with 1: .*in use by another Crossfade/s)
  expect((await get('health')).status).toBe(200)
})

test('pages carry a strict policy and an unknown address leads back', async ({ page }) => {
  const lost = await page.goto(`${server.address}harbour`)
  expect(lost?.status()).toBe(404)
  expect(lost?.headers()['content-security-policy']).toContain("default-src 'none'")
  await page.getByRole('link', { name: 'Back to the Desk' }).click()
  await expect(page.getByRole('heading', { name: 'Lay something over a chord' })).toBeVisible()
})

test('files come compressed as the browser reads them, are kept for ever under their hash, and asked for again are not sent', async () => {
  const page = await (await fetch(server.address)).text()
  const [, file = ''] = /(\/_astro\/[\w.-]+\.css)/.exec(page) ?? []
  const asked = (headers: Record<string, string>) => fetch(server.address + file.slice(1), { headers })
  const texts = new Set<string>()
  for (const [accept, encoding] of [
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
    ['identity', null],
  ] as const) {
    const answer = await asked({ 'accept-encoding': accept })
    expect(answer.headers.get('content-encoding')).toBe(encoding)
    expect(answer.headers.get('cache-control')).toBe('public,max-age=31536000,immutable')
    expect(answer.headers.get('vary')).toMatch(/accept-encoding/i)
    texts.add(await answer.text())
  }
  expect(texts.size).toBe(1)
  const tag = (await asked({ 'accept-encoding': 'br' })).headers.get('etag') ?? ''
  expect((await asked({ 'if-none-match': tag, 'accept-encoding': 'br' })).status).toBe(304)
  for (const range of ['bytes=5-2', 'bytes=-3', 'bytes=x', 'lines=1-'])
    expect((await asked({ range })).status, range).toBe(200)
  expect((await fetch(`${server.address}icon.svg`)).headers.get('cache-control')).toBe('no-cache')
})

test('who never ends a header is told so and let go, and the others are answered meanwhile', async () => {
  const { hostname, port } = new URL(server.address)
  const sockets = Array.from({ length: 30 }, () => connect(Number(port), hostname))
  const ended = sockets.map(
    (socket) =>
      new Promise<string>((resolve) => {
        let said = ''
        socket.on('data', (piece) => {
          said += piece
        })
        socket.on('error', () => undefined).on('close', () => resolve(said))
        socket.write('GET /health HTTP/1.1\r\nhost: 127.0.0.1\r\nx-slow: ')
      }),
  )
  expect((await get('health')).status).toBe(200)
  for (const said of await Promise.all(ended)) expect(said).toMatch(/^HTTP\/1.1 408 /)
  expect((await get('health')).status).toBe(200)
})
