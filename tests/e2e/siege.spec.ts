import { connect, type Socket } from 'node:net'
import { expect, test } from '@playwright/test'
import { mutatedFrom, randomFrom, type Spec } from './mutated.ts'
import { call, serverOfFile } from './server.ts'

const server = serverOfFile()

/** Nothing that is allowed to be asked takes longer than its limit of time and its turn; a test waits a little more. */
const USUAL = 15_000
const PLAN = 60_000
const MOST_MEMORY = 900 * 1024 * 1024

interface Asked {
  readonly method?: string
  readonly path: string
  readonly body?: unknown
  readonly file?: string | Uint8Array
}
type Row = readonly [what: string, asked: Asked, status?: number]

const times = (text: string, n: number): string => text.repeat(n)
const nested = (n: number): string => `${times('[', n)}${times(']', n)}`
const notes = (n: number, each = 240, at = (i: number) => i * each) =>
  Array.from({ length: n }, (_, i) => ({ at: at(i), for: each, pitch: 55 + ((i * 7) % 24) }))
const chart = (text: string): Asked => ({ path: 'charts/analyse', body: { text } })
const keptChart = (text: string): Asked => ({ path: 'charts', body: { title: 'Bollard', text } })
const audit = (line: object, text = '| Dm7 | G7 | Cmaj7 | % |'): Asked => ({
  path: 'lines/audit',
  body: { text, line },
})
const plan = (text: string, more: object): Asked => ({ path: 'routes/plan', body: { text, ...more } })
const file = (content: string | Uint8Array, path = 'import'): Asked => ({ path, file: content })
const tune = (music: string, head = 'L:1/8\nM:4/4\n'): string => `X:1\n${head}K:C\n${music}\n`
const score = (inside: string): string =>
  `<score-partwise><part id="P1"><measure number="1"><attributes><divisions>1</divisions></attributes>${inside}</measure></part></score-partwise>`
const note = (more: string): string =>
  `<note><pitch><step>C</step><octave>4</octave></pitch><duration>1</duration>${more}</note>`

const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
const KINDS = ['m7', '7', 'maj7', 'm7b5', '7alt', '7#11', '6', 'm6']
const wandering = (bars: number): string => {
  const chord = (i: number): string => `${ROOTS[(i * 5) % 12]}${KINDS[(i * 3 + (i >> 3)) % 8]}`
  return Array.from({ length: bars }, (_, i) => `| ${chord(2 * i)} ${chord(2 * i + 1)} `).join('')
}

/** Small requests that made much work, and their like. */
const LONG: readonly Row[] = [
  ['a length of a thousand million', audit({ abc: tune('C999999999|') }), 400],
  ['a rest of a hundred million bars', audit({ abc: tune('Z99999999|') }), 400],
  ['the same kept', { path: 'lines', body: { name: 'x', text: '| C |', line: { abc: tune('C999999999|') } } }, 400],
  ['the same as a file', file(tune('Z99999999|'), 'lines/read'), 400],
  ['the same as a chart', file(tune('"C7"C999999999|')), 400],
  ['lengths that add up', audit({ abc: tune(times('C9999', 400)) }), 400],
  ['a length far below the line', audit({ abc: tune(`c${times('/', 5000)}|`) })],
  ['three hundred chords in a bar', chart(`| ${times('C ', 300)}|${times('%|', 1000)}`), 400],
  ['sixty chords in each of a thousand bars', chart(`| ${times('C ', 60)}|${times('%|', 1000)}`), 400],
  ['the same kept', keptChart(`| ${times('C ', 60)}|${times('%|', 1000)}`), 400],
  ['two thousand and one bars', chart(times('| C ', 2001)), 400],
  ['two thousand bars', chart(times('| C ', 2000)), 200],
  ['fifty thousand bars', keptChart(times('|C', 50_000)), 400],
  ['four thousand chords', chart(times('| Dm7 G7 ', 2000)), 200],
  ['nine passes of four hundred bars', chart(`|: ${times('C |', 400)}1-8. C :|9. C |`), 400],
  ['repeats without an end', chart(times('|: C :|', 900)), 200],
  ['a section with a wide name', chart(`== A${times(' ', 60_000)}B${times(' =', 9000)}x\n| C |`)],
  ['comments that begin and begin', chart(`${times('//…\r', 20_000)}\n| C |`)],
  ['a header of spaces', chart(`title = ${times(' ', 50_000)}\u2028${times(' ', 40_000)}x\n| C |`)],
  ['a header of letters', chart(`${times('a', 90_000)}\n| C |`), 400],
  ['an open bracket', chart(`| ${times('(', 90_000)}`), 400],
  ['brackets in brackets', chart(`| ${times('(C|', 20_000)}`), 400],
  ['beats of beats', chart(`| C${times(':1', 40_000)} |`), 400],
  ['endings of endings', chart(`| ${times('1', 90_000)}. C |`)],
  ['a chord of alterations', chart(`| C7(${times('b9,', 20_000)}) |`)],
  ['flats of flats', chart(`| C${times('b', 90_000)} |`), 400],
  ['slashes of slashes', chart(`| C ${times('/ ', 40_000)}|`), 400],
  ['a metre of nothing', chart('metre = 0/4\n| C |'), 400],
  ['bars of a sixteenth', chart(`metre = 1/16\n${times('| C ', 2000)}`), 200],
  ['notes of a day', audit({ notes: notes(2, 1, (i) => i * 100_000_000) }), 400],
  ['notes at the edge', audit({ notes: notes(2, 1, (i) => i * 7_600_000) }), 200],
  ['as many notes as are taken', audit({ notes: notes(8192) })],
  ['more notes than are taken', audit({ notes: notes(8193) }), 400],
  ['twenty thousand notes', audit({ notes: notes(20_000) }), 400],
  ['one note eight thousand times', audit({ notes: notes(8192, 1) })],
  ['notes over a long chart', audit({ notes: notes(8192, 900) }, wandering(2000))],
  ['notes over one bar', audit({ notes: notes(4000) }, 'metre = 1/16\n| C |')],
  ['a plan against the bass, one of each series', plan(wandering(32), { motion: 'contrary', eachSeries: true })],
  ['the same throughout', plan(wandering(64), { motion: 'contrary', motionScope: 'throughout', eachSeries: true })],
  ['a plan that joins its end', plan(wandering(32), { motion: '+1', motionScope: 'throughout', loop: true })],
  ['a plan of all steps', plan(wandering(256), { motion: 'any constant', families: ['pair'] })],
  ['a plan of too many steps', plan(wandering(257), {}), 400],
  ['a plan of every family', plan(wandering(32), { limit: 100, families: ['slip', 'changed', 'pair', 'pentatonic'] })],
  ['a plan that cannot be', plan(wandering(32), { fadeMin: 100, fadeMax: 100, landingMin: 100, motion: '+1' })],
  ['comments in a score', file(score(times('<!--', 100_000))), 400],
  ['comments with repeats', file(score(`<!--${times('<repeat', 100_000)}-->`)), 400],
  ['document types', file(times('<!DOCTYPE x', 100_000)), 400],
  ['a document type of its own', file(`<!DOCTYPE x [${times('<!ELEMENT a>', 9000)}]><score-partwise/>`), 400],
  ['elements in elements', file(times('<a>', 100_000)), 400],
  ['attributes', file(score(`<harmony ${Array.from({ length: 9000 }, (_, i) => `a${i}="1"`).join(' ')}/>`))],
  ['entities', file(score(`<harmony><root><root-step>${times('&lt;', 50_000)}</root-step></root></harmony>`))],
  ['a duration without end', file(score(times('<note><duration>1e308</duration></note>', 3)), 'lines/read'), 400],
  ['notes of a long duration', file(score(note('').replace('>1<', '>99999999999<')), 'lines/read'), 400],
  ['an octave that is none', file(score(note('').replace('>4<', '>99999<')), 'lines/read'), 400],
  [
    'divisions that are none',
    file(score(`<attributes><divisions>1e-300</divisions></attributes>${note('')}`), 'lines/read'),
  ],
  ['ties without a beginning', file(score(times(note('<tie type="stop"/>'), 8000)), 'lines/read')],
  ['measures', file(`<score-partwise><part>${times('<measure/>', 60_000)}</part></score-partwise>`), 400],
  ['newlines before the key', file(`X:1\n${times('\n', 150_000)}K:C\n"C"c|`)],
  ['comments before the key', file(`${times('%\n', 90_000)}X:1\nK:C\n"C7"c|`)],
  ['graces', file(tune(times('{a', 20_000)), 'lines/read')],
  ['a metre of sums', file(tune('"C"c|', `M:(${times('1+', 9000)}1)/4\n`)), 400],
  ['voices', file(`X:1\nK:C\n${Array.from({ length: 3000 }, (_, i) => `V:${i}\nc|\n`).join('')}`), 400],
  ['repeats in repeats', file(tune(`${times('|:"C"c', 400)}${times(':|', 400)}`), 'lines/read')],
  ['voices over each other', file(tune(times('c&', 3000)), 'lines/read'), 400],
  ['words', file(tune(`c|\nw:${times(' a-', 20_000)}`), 'lines/read')],
  ['a tune without an end', file(tune(times('cdef ', 60_000)), 'lines/read'), 400],
  [
    'MIDI of nothing',
    file(new Uint8Array([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 1, 255, 255, 0, 96]), 'lines/read'),
    400,
  ],
  ['MIDI with a track of four gigabytes', file(midi([0x4d, 0x54, 0x72, 0x6b, 255, 255, 255, 255]), 'lines/read'), 400],
  ['MIDI that waits for ever', file(midi(slowTrack()), 'lines/read'), 400],
  ['a packed score that is none', file(new Uint8Array([0x50, 0x4b, 3, 4, ...new Uint8Array(2000)])), 400],
  ['a question of a thousand chords', { method: 'GET', path: `ask?q=${encodeURIComponent(times('C|', 990))}` }],
  ['a question of joined triads', { method: 'GET', path: `ask?q=${encodeURIComponent(times('C & ', 480))}` }, 400],
  ['a question of spaces', { method: 'GET', path: `ask?q=${encodeURIComponent(`B${times(' ', 1900)}over`)}` }, 400],
  ['a question of flats', { method: 'GET', path: `ask?q=B${times('b', 1900)}%20over%20C7` }, 400],
  ['notes of notes', { method: 'GET', path: `name?notes=${times('C,', 99)}` }],
  ['every pair on a page', { method: 'GET', path: 'pairs?chord=C7&next=F&limit=200' }, 200],
  ['every overlay on a page', { method: 'GET', path: 'overlays?chord=C7alt&next=Fm&limit=200' }, 200],
  ['a page far behind the last', { method: 'GET', path: 'overlays?chord=C7&offset=999999' }, 200],
  ['a setting of a megabyte', { path: 'settings', body: { name: 'hold', value: times('x', 1_000_000) } }, 400],
  [
    'a route of two thousand steps',
    { path: 'routes', body: { name: 'x', steps: Array(2000).fill({ overlay: 'B dorian' }) } },
  ],
  ['a route of more', { path: 'routes', body: { name: 'x', steps: Array(2001).fill({ overlay: 'B dorian' }) } }, 400],
  [
    'overrides without end',
    { path: 'charts/analyse', body: { text: '| C |', overrides: Array(2001).fill({ bar: 1, beat: 1 }) } },
    400,
  ],
  [
    'overrides for every chord',
    {
      path: 'charts/analyse',
      body: { text: times('| Dm7 G7 ', 1000), overrides: Array(2000).fill({ bar: 1, beat: 1, split: 2 }) },
    },
    200,
  ],
]

function midi(track: readonly number[]): Uint8Array {
  return new Uint8Array([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 0, 0, 1, 0, 1, ...track])
}
/** A note that begins after the longest wait there is, a hundred times. */
function slowTrack(): readonly number[] {
  const events = Array.from({ length: 100 }, () => [
    255, 255, 255, 127, 0x90, 60, 64, 255, 255, 255, 127, 0x80, 60, 0,
  ]).flat()
  const all = [...events, 0, 255, 47, 0]
  return [0x4d, 0x54, 0x72, 0x6b, 0, 0, all.length >> 8, all.length & 255, ...all]
}

const HALF = '\ud83d'
const ZERO = 'a\u0000b'
const GET = (path: string): Asked => ({ method: 'GET', path })

/** Requests that are no request: each is told so, none is a failure of the program. */
const ODD: readonly Row[] = [
  ['a zero in a title', { path: 'charts', body: { title: ZERO, text: '| C |' } }, 400],
  ['half a character in a title', { path: 'charts', body: { title: HALF, text: '| C |' } }, 400],
  ['a zero in a tag', { path: 'charts', body: { title: 'x', text: '| C |', tags: [ZERO] } }, 400],
  ['a zero in a note', { path: 'ideas', body: { overlay: 'B dorian', chord: 'C7', note: ZERO } }, 400],
  ['half a character deep in a setting', { path: 'settings', body: { name: 'deep', value: [[{ [HALF]: 1 }]] } }, 400],
  ['a zero in rules', { path: 'routes', body: { name: 'x', steps: [], rules: { a: ZERO } } }, 400],
  ['a zero in a step', { path: 'routes', body: { name: 'x', steps: [{ overlay: 'B dorian', told: ZERO }] } }, 400],
  ['a zero in a search', GET('charts?q=%00'), 400],
  ['a zero in a question', GET('ask?q=%00'), 400],
  ['a zero in an id', GET('charts/%00'), 404],
  ['a zero in an id of an export', GET('lines/%00/export'), 404],
  ['a bad escape', GET('charts/%zz'), 400],
  ['half an escape', GET('charts/%E0%A4'), 400],
  ['a bad place in a list', GET('charts?after=x'), 400],
  ['a place that is no time', GET(`charts?after=${Buffer.from('["x","y"]').toString('base64url')}`), 400],
  ['a place with a zero', GET(`charts?sort=title&after=${Buffer.from('["\\u0000","y"]').toString('base64url')}`), 400],
  ['a place that is no list', GET(`charts?after=${Buffer.from('{"0":"x"}').toString('base64url')}`), 400],
  [
    'a version past counting',
    { method: 'PUT', path: 'charts/x', body: { title: 'x', text: '| C |', version: 2 ** 31 } },
    400,
  ],
  ['a bar past counting', { path: 'ideas', body: { overlay: 'B dorian', chord: 'C7', bar: 2 ** 31, beat: 1 } }, 400],
  ['a number past numbers', { path: 'ideas', body: '{"overlay":"B dorian","chord":"C7","beat":1e999}' }, 400],
  ['a change past counting', { path: 'undo', body: { change: '999999999999999999' } }, 409],
  ['no overrides', { path: 'charts/analyse', body: { text: '| C |', overrides: null } }, 200],
  ['no overrides of a plan', plan('| C | F |', { overrides: null }), 200],
  [
    'no overrides of an audit',
    { path: 'lines/audit', body: { text: '| C |', overrides: null, line: { notes: notes(3) } } },
    200,
  ],
  ['a body five thousand deep', { path: 'settings', body: `{"name":"x","value":${nested(5000)}}` }, 400],
  ['a body nine hundred thousand deep', { path: 'charts/analyse', body: nested(900_000) }, 400],
  ['a deep body of another call', { path: 'routes/plan', body: `{"text":"| C |","lock":${nested(5000)}}` }, 400],
  ['the name of a prototype', { path: 'settings', body: '{"name":"x","value":{"__proto__":{"a":1}}}' }],
  ['a prototype for a body', { path: 'charts', body: '{"__proto__":{"title":"x"},"text":"| C |"}' }, 400],
  ['a body of nothing', { path: 'charts', body: 'null' }, 400],
  ['a body of a number', { path: 'lines/audit', body: '1' }, 400],
  ['a list for a body', { path: 'charts/analyse', body: '[]' }, 400],
  ['school as a list', { path: 'charts/analyse', body: { text: '| C |', school: [] } }, 400],
  ['weights as null', { path: 'charts/analyse', body: { text: '| C |', weights: null } }, 400],
  ['a school in an address that is none', GET('ask?q=B+dorian+over+C7&school=[[[['), 400],
  ['weights in an address past all', GET('ask?q=B+dorian+over+C7&weights={"altered":{"b9":1e9}}'), 400],
  ['an arc of nothing', plan('| C | F |', { arc: [] }), 400],
  ['bars the wrong way', plan('| C | F |', { bars: [2, 1] })],
  ['a step past the last', plan('| C | F |', { lock: [{ step: 2, overlay: 'C major pentatonic' }] }), 400],
  ['a pitch that is none', audit({ notes: [{ at: 0, for: 1, pitch: 'H4' }] }), 400],
  ['a pitch below all', audit({ notes: [{ at: 0, for: 1, pitch: 'C-9' }] })],
  ['a line of two kinds', audit({ notes: [], abc: '' }), 400],
  ['a line without notes', audit({ notes: [] }), 400],
  ['a form without a file', { path: 'import', body: {} }, 415],
]

const send = async ({ method, path, body, file: content }: Asked) => {
  const signal = AbortSignal.timeout(path === 'routes/plan' ? PLAN : USUAL)
  const form = new FormData()
  if (content !== undefined) form.append('file', new Blob([content as BlobPart]), 'brought')
  const text = typeof body === 'string' ? body : JSON.stringify(body)
  const response = await fetch(`${server.address}api/v1/${path}`, {
    method: method ?? 'POST',
    signal,
    ...(content === undefined ? {} : { body: form }),
    ...(body === undefined ? {} : { body: text, headers: { 'content-type': 'application/json' } }),
  })
  return { status: response.status, type: response.headers.get('content-type') ?? '', text: await response.text() }
}

const isAlive = async (): Promise<void> => {
  expect((await call(server.address, 'GET', 'health')).status).toBe(200)
  expect((await fetch(server.address)).status).toBe(200)
}

for (const [title, rows] of [
  ['small requests that would make much work', LONG],
  ['requests that are none', ODD],
] as const)
  test(`${title} are answered within their time, and the page opens after each`, async () => {
    test.setTimeout(600_000)
    const wrong: string[] = []
    for (const [what, asked, wanted] of rows) {
      const { status, type, text } = await send(asked).catch((error: Error) => ({
        status: 0,
        type: '',
        text: error.message,
      }))
      const isFine = wanted === undefined ? status < 300 || (status >= 400 && status < 500) : status === wanted
      const isTold = status < 400 || type.startsWith('application/problem+json')
      if (!isFine || !isTold) wrong.push(`${what}: ${status} ${type} ${text.slice(0, 200)}`)
    }
    expect(wrong).toEqual([])
    await isAlive()
    expect(server.memory()).toBeLessThan(MOST_MEMORY)
  })

/** What no library would send. */
const raw = (text: string): Promise<string> =>
  new Promise((resolve) => {
    const { hostname, port } = new URL(server.address)
    let heard = ''
    const socket = connect(Number(port), hostname, () => socket.write(text))
    socket.on('data', (d) => {
      heard += d
      socket.end()
    })
    socket.on('close', () => resolve(heard))
    socket.on('error', () => resolve(heard))
    socket.setTimeout(5000, () => socket.destroy())
  })

/** A client that asks, hears that it is answered, and takes nothing more until it is told to. */
const idle = (path: string): Promise<Socket> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(server.address)
    const socket = connect(Number(port), hostname, () =>
      socket.write(`GET /api/v1/${path} HTTP/1.1\r\nhost: ${hostname}:${port}\r\nconnection: close\r\n\r\n`),
    )
    socket.once('error', reject).once('readable', () => resolve(socket))
  })

test('who takes a file slowly gets all of it, and it does not wait in memory meanwhile', async () => {
  const PIECE = 8 * 1024 * 1024
  const PIECES = 4
  const CLIENTS = 12
  const take = { name: 'Fog', text: '| Dm7 | G7 |', tempo: 120, source: 'sent', notes: [] }
  const { id } = (await call(server.address, 'POST', 'takes', take)).body
  for (let i = 0; i < PIECES; i++) {
    const sent = await fetch(`${server.address}api/v1/takes/${id}/sound?from=${i * PIECE}`, {
      method: 'PUT',
      headers: { 'content-type': 'audio/wav' },
      body: new Uint8Array(PIECE).fill(i + 1),
    })
    expect(sent.status).toBe(200)
  }
  const before = server.memory()
  const clients = await Promise.all(Array.from({ length: CLIENTS }, () => idle(`takes/${id}/sound`)))
  await new Promise((resolve) => setTimeout(resolve, 3000))
  expect(server.memory() - before).toBeLessThan(3 * PIECE * PIECES)
  const [slow, ...gone] = clients
  for (const socket of gone) socket.destroy()
  const got: Buffer[] = []
  slow?.on('data', (piece) => got.push(piece))
  await new Promise((resolve) => slow?.once('close', resolve))
  const all = Buffer.concat(got)
  expect(all.length - all.indexOf('\r\n\r\n') - 4).toBe(PIECE * PIECES)
  expect(all.at(-1)).toBe(PIECES)
  await isAlive()
})

test('methods and addresses of no library are told what they are', async () => {
  const { host } = new URL(server.address)
  const asked = (line: string) => raw(`${line} HTTP/1.1\r\nHost: ${host}\r\nConnection: close\r\n\r\n`)
  for (const [line, status] of [
    ['TRACE /', 405],
    ['TRACE /api/v1/charts', 405],
    ['SEARCH /api/v1/charts', 405],
    ['PATCH /api/v1/charts', 405],
    ['GET /%', 400],
    ['GET /api/v1/charts/%ff%fe', 400],
    ['GET /desk?over=%', 200],
    ['GET /desk?chart=%00', 200],
    ['GET /desk?chart=x&route=%00', 200],
  ] as const) {
    const heard = await asked(line)
    expect(`${line} ${heard.split('\r\n', 1)}`).toContain(`${line} HTTP/1.1 ${status}`)
  }
  await isAlive()
})

/** So many of them in every run; `SIEGE` asks for more. */
const MUTATED = Number(process.env.SIEGE ?? 1200)
const AT_ONCE = 8

test('requests made from the description of the interface, each with something odd in it, never fail the program', async () => {
  test.setTimeout(60_000 + MUTATED * 200)
  const api = (method: string, path: string, body?: unknown) => call(server.address, method, path, body)
  const spec: Spec = (await api('GET', 'openapi.json')).body
  expect(Object.keys(spec.paths).length).toBeGreaterThan(25)
  const ids = [
    (await api('POST', 'charts', { title: 'Weir', text: '| Dm7 | G7 |' })).body.id,
    (await api('POST', 'lines', { name: 'Weir', text: '| Dm7 |', line: { notes: notes(4) } })).body.id,
    (await api('POST', 'routes', { name: 'Weir', steps: [{ overlay: 'B dorian', bar: 1, beat: 1 }] })).body.id,
  ]
  const random = randomFrom(MUTATED)
  const wrong: string[] = []
  const counts = new Map<number, number>()
  let left = MUTATED
  const one = async (): Promise<void> => {
    while (left-- > 0) {
      const { method, path, body, type } = mutatedFrom(spec, ids, random)
      const answer = await fetch(`${server.address}api/v1/${path}`, {
        method,
        signal: AbortSignal.timeout(PLAN),
        ...(body === null ? {} : { body }),
        ...(type === null ? {} : { headers: { 'content-type': type } }),
      }).catch((error: Error) => error)
      const status = answer instanceof Error ? 0 : answer.status
      const text = answer instanceof Error ? answer.message : await answer.text()
      counts.set(status, (counts.get(status) ?? 0) + 1)
      const isBusy = status === 503 && text.includes('"busy"')
      if (status === 0 || (status >= 500 && !isBusy)) {
        const told = typeof body === 'string' ? body.slice(0, 300) : '(a form)'
        wrong.push(`${method} ${path.slice(0, 300)} ${told}: ${status} ${text.slice(0, 120)}`)
      }
    }
  }
  await Promise.all(Array.from({ length: AT_ONCE }, one))
  expect(wrong).toEqual([])
  // Some are right after all, and some are wrong in each of the ways there are.
  for (const status of [200, 400, 404]) expect(counts.get(status) ?? 0, `${status}`).toBeGreaterThan(MUTATED / 100)
  await isAlive()
  expect(server.memory()).toBeLessThan(MOST_MEMORY)
})
