import { expect, test } from '@playwright/test'
import Ajv2019 from 'ajv/dist/2019.js'
import { call, serverOfFile } from './server.ts'

const server = serverOfFile()

const get = (path: string, query: Record<string, string>) =>
  call(server.address, 'GET', `${path}?${new URLSearchParams(query)}`)

const ASKED: readonly (readonly [string, Record<string, string>])[] = [
  ['ask', { q: 'B dorian over Eb7 to Abmaj7' }],
  ['ask', { q: 'Ab & Bb+ over Ab7 to Dbmaj7' }],
  ['ask', { q: 'Gb over Eb7 while Ebm7 sounds' }],
  ['ask', { q: 'E half-whole' }],
  ['ask', { q: 'F#m7b5/E' }],
  ['ask', { q: '| Dm7 G7 | N.C. |' }],
  ['ask', { q: 'pairs over Db7' }],
  ['ask', { q: 'what holds 9 #11 over Db7 to Gbmaj7' }],
  ['chord', { symbol: '(A|Bb)' }],
  ['chord', { symbol: 'N.C.' }],
  [
    'pairs',
    { chord: 'Db7', next: '', qualities: 'major,major', distance: '6', exclusive: 'true', limit: '', offset: '' },
  ],
  [
    'overlays',
    {
      chord: 'Eb7',
      next: 'Abmaj7',
      families: 'pentatonic,triad',
      hold: '9,#11',
      avoid: '7',
      sort: 'landing',
      fadeMax: '60',
    },
  ],
  ['pairs', { chord: 'Db7', qualities: 'major,augmented', exclusive: 'true' }],
  ['pairs/derive', { scale: 'Ab ionian', omit: '4', chord: 'Abmaj7' }],
  ['pairs/derive', { scale: 'C minor blues' }],
  ['symmetry', { scale: 'F half-whole' }],
  ['dominants', { of: 'Ebdim7' }],
  ['name', { notes: 'Ab,C,Eb,Bb,D,Gb' }],
  ['health', {}],
  ['practice/today', { minutes: '25', zone: '60', now: '2026-11-20T09:00:00Z' }],
  ['practice/cards', {}],
  ['practice/coverage', {}],
  ['practice/course', { days: '7' }],
]

test('every real answer is what openapi.json says, with no field outside it', async () => {
  const spec = (await get('openapi.json', {})).body
  expect(spec.openapi).toBe('3.1.0')
  const ajv = new Ajv2019({ strict: false, allErrors: true })
  for (const [path, query] of ASKED) {
    const { status, body } = await get(path, query)
    expect(status, path).toBe(200)
    const operation = spec.paths[`/${path}`].get
    const validate = ajv.compile(operation.responses[200].content['application/json'].schema)
    expect(validate(body) ? [] : validate.errors, `${path} ${JSON.stringify(query)}`).toEqual([])
    expect(validate({ ...body, extra: 1 }), `${path} takes a field that is not agreed`).toBe(false)
    const known = operation.parameters.map((p: { name: string }) => p.name)
    expect(Object.keys(query).filter((k) => !known.includes(k))).toEqual([])
  }
  const { default: problem } = spec.paths['/ask'].get.responses
  expect(problem).toEqual({ $ref: '#/components/responses/Problem' })
  const validate = ajv.compile(spec.components.responses.Problem.content['application/problem+json'].schema)
  expect(validate((await get('ask', { q: 'Hm7' })).body)).toBe(true)
})

const REFUSED: readonly (readonly [string, Record<string, string>, string, number | undefined])[] = [
  ['overlays', { chord: 'Eb77' }, 'chord', 3],
  ['overlays', { chord: 'Eb7', next: 'Hm7' }, 'next', 0],
  ['overlays', { chord: 'Eb7', families: 'harbour' }, 'families', undefined],
  ['overlays', { chord: 'Eb7', hold: '9,14' }, 'hold', undefined],
  ['overlays', { chord: 'Eb7', fadeMax: '200' }, 'fadeMax', undefined],
  ['overlays', { chord: 'Eb7', colour: 'red' }, 'colour', undefined],
  ['pairs', { chord: 'Db7', qualities: 'major' }, 'qualities', undefined],
  ['pairs', { chord: 'Db7', distance: '7' }, 'distance', undefined],
  ['pairs/derive', { scale: 'Ab foo' }, 'scale', 3],
  ['pairs/derive', { scale: 'Ab ionian', omit: 'b4' }, 'omit', undefined],
  ['pairs/derive', { scale: 'F chromatic' }, 'scale', undefined],
  ['symmetry', { scale: '' }, 'scale', 0],
  ['dominants', { of: 'Eb7' }, 'of', undefined],
  ['name', { notes: 'Ab,H' }, 'notes', 3],
  ['ask', { q: 'E7', school: '{"suspensions":"never"}' }, 'school', undefined],
  ['ask', { q: 'E7', weights: 'x' }, 'weights', undefined],
]

test('what is not agreed is refused where it is wrong', async () => {
  for (const [path, query, field, at] of REFUSED) {
    const { status, type, body } = await get(path, query)
    expect([status, type], `${path} ${JSON.stringify(query)}`).toEqual([400, 'application/problem+json'])
    expect([body.errors[0].path, body.errors[0].at], `${path} ${JSON.stringify(query)}`).toEqual([field, at])
    expect(body.errors[0]).toMatchObject({ found: expect.any(String), expected: expect.any(Array) })
  }
})

test('school and weights are values that change the answer', async () => {
  const fade = async (more: Record<string, string>) => (await get('ask', { q: 'F over C7', ...more })).body.notes[0]
  expect(await fade({})).toMatchObject({ role: 'suspension', fade: 30 })
  expect(await fade({ school: '{"fourOverDominant":"colour"}' })).toMatchObject({ role: 'extension', fade: 20 })
  expect(await fade({ weights: '{"suspensionHome":64}' })).toMatchObject({ role: 'suspension', fade: 64 })
})

test('a chart is analysed as agreed, and the player’s word wins', async () => {
  const text = 'metre = 3/4\n== Hold\n|: Dm7 G7 | Cmaj7 |1. Ebdim7 :|2. N.C. |'
  const spec = (await get('openapi.json', {})).body
  const { schema } = spec.paths['/charts/analyse'].post.responses[200].content['application/json']
  const validate = new Ajv2019({ strict: false, allErrors: true }).compile(schema)
  const analyse = (more: object = {}) => call(server.address, 'POST', 'charts/analyse', { text, ...more })
  const { status, body } = await analyse({ key: 'C' })
  expect([status, validate(body) ? [] : validate.errors]).toEqual([200, []])
  expect(body.bars.map((b: { number: number; section: string | null }) => [b.number, b.section])).toEqual([
    [1, 'Hold'],
    [2, null],
    [3, null],
    [4, 'Hold'],
    [5, null],
    [6, null],
  ])
  const odd = await analyse({ text: '| C | 7/8 Dm7:4 G7 |\nmetre = 3/4\n| C |' })
  expect(odd.body.bars.map((b: { metre: string }) => b.metre)).toEqual(['4/4', '7/8', '3/4'])
  expect(odd.body.bars[1].chords.map((c: { beat: number; beats: number }) => [c.beat, c.beats])).toEqual([
    [1, 4],
    [5, 3],
  ])
  expect(body.bars[0].chords[1]).toEqual({
    symbol: 'G7',
    beat: 2.5,
    beats: 1.5,
    key: 'C major',
    degree: '5',
    job: 'V of C',
    target: 'C',
    resolves: true,
    home: 'G mixolydian',
    reason: 'Cmaj7 stands a fifth below it.',
  })
  expect(body.bars[2].chords[0].dominants).toEqual(['D7', 'F7', 'Ab7', 'B7'])
  expect(body.bars[5].chords[0]).toMatchObject({ symbol: 'N.C.', job: 'no chord', home: null, key: null })
  expect(body.chains[0]).toEqual({ kind: 'ii-V-I', fromBar: 1, toBar: 2, target: 'C' })
  const mine = await analyse({ overrides: [{ bar: 1, beat: 2.5, job: 'substitute V of F#', home: 'G altered' }] })
  expect(mine.body.bars[0].chords[1]).toMatchObject({ job: 'substitute V of F#', home: 'G altered' })
  const cut = await analyse({ overrides: [{ bar: 2, beat: 1, split: 2 }] })
  expect(cut.body.bars[1].chords.map((c: { beat: number; beats: number }) => [c.beat, c.beats])).toEqual([
    [1, 1],
    [2, 2],
  ])
  for (const [bad, field, at] of [
    [{ text: '| Dm7 | Hm7 |' }, 'text', 8],
    [{ key: 'H' }, 'key', 0],
    [{ overrides: [{ bar: 1, beat: 1, job: 'captain' }] }, 'overrides.0.job', undefined],
  ] as const) {
    const refused = await analyse(bad)
    expect([refused.status, refused.body.errors[0].path, refused.body.errors[0].at]).toEqual([400, field, at])
  }
})

test('files come in and charts go out as agreed; what is no file is refused', async () => {
  const bring = async (content: string | Blob, name = 'buoy.txt') => {
    const form = new FormData()
    form.set('file', new File([content], name))
    const response = await fetch(`${server.address}api/v1/import`, { method: 'POST', body: form })
    return { status: response.status, body: await response.json() }
  }
  const text = 'metre = 3/4\n| D7 | % |'
  const read = await bring(text, 'buoy.txt')
  expect(read).toMatchObject({
    status: 200,
    body: { format: 'text', title: 'buoy', text, read: { bars: 2, chords: 2, key: null, metre: '3/4' }, leftOut: [] },
  })
  const { id } = (await call(server.address, 'POST', 'charts', { title: 'Buoy', text })).body
  const out = async (as: string) => fetch(`${server.address}api/v1/charts/${id}/export?as=${as}`)
  const xml = await out('musicxml')
  expect(xml.headers.get('content-disposition')).toBe("attachment; filename*=UTF-8''Buoy.musicxml")
  expect((await bring(await xml.text())).body).toMatchObject({ format: 'musicxml', title: 'Buoy', read: { bars: 2 } })
  expect([(await out('text')).status, (await out('midi')).status]).toEqual([200, 400])
  expect(await (await out('text')).text()).toBe(text)
  const band = await fetch(`${server.address}api/v1/charts/${id}/band?feel=bossa&tempo=99`)
  expect([band.status, band.headers.get('content-type')]).toEqual([200, 'audio/midi'])
  expect(
    Buffer.from(await band.arrayBuffer())
      .subarray(0, 4)
      .toString(),
  ).toBe('MThd')
  expect((await call(server.address, 'GET', `charts/${id}/band?feel=polka`)).status).toBe(400)
  expect((await bring('| Dm7 | Hm7 |')).body).toMatchObject({ code: 'bad_file', errors: [{ path: 'file' }] })
  expect((await bring(new Blob([new Uint8Array(11 * 1024 * 1024)]))).status).toBe(413)
  expect((await call(server.address, 'POST', 'import', { text })).status).toBe(415)
})

const TURN = '| Dm7 | G7 | Cmaj7 | A7alt |'
const plan = (asked: object) => call(server.address, 'POST', 'routes/plan', { text: TURN, ...asked })

test('routes are planned as agreed: every answer fits the schema, adds up, and reads as its overlays read', async () => {
  const spec = (await get('openapi.json', {})).body
  const { schema } = spec.paths['/routes/plan'].post.responses[200].content['application/json']
  const validate = new Ajv2019({ strict: false, allErrors: true }).compile(schema)
  const asked = [
    { families: ['pentatonic', 'triad'], arc: [20, 45, 10, 50], motion: '+1', motionScope: 'throughout', limit: 3 },
    { families: ['triad'], arc: [20, 45, 10, 50], lock: [{ step: 1, overlay: 'Db major pentatonic' }], limit: 5 },
    { recipe: 'minor pentatonics rising', limit: 1 },
    { bars: [2, 3], families: ['pair'], limit: 2, eachSeries: true },
    { families: ['triad'], hold: ['3', 'b7'], avoid: ['b9'], fadeMax: 1 },
  ]
  for (const body of asked) {
    const { status, body: answer } = await plan(body)
    expect([status, validate(answer) ? [] : validate.errors], JSON.stringify(body)).toEqual([200, []])
    for (const route of answer.routes) {
      const { arcMiss, motion, landingMiss, repeats } = route.terms
      expect(route.total).toBe(arcMiss + motion + landingMiss + repeats)
    }
  }
  const { body } = await plan(asked[0] as object)
  for (const [i, step] of body.routes[0].steps.entries()) {
    const next = ['G7', 'Cmaj7', 'A7alt', 'Dm7'][i]
    const read = (await get('ask', { q: `${step.overlay} over ${step.chord} to ${next}` })).body
    expect([step.fade, step.landing], step.overlay).toEqual([read.fade, read.landing])
  }
  expect(body.routes[0].steps.map((s: { seam: object | null }) => s.seam === null)).toEqual([false, false, false, true])
  const locked = (await plan(asked[1] as object)).body.routes
  expect(locked).toHaveLength(5)
  for (const route of locked) expect(route.steps[1].overlay).toBe('Db major pentatonic')
  const without = (await plan({ families: ['triad'], ban: [{ overlay: locked[0].steps[0].overlay }], limit: 4 })).body
  for (const r of without.routes) for (const s of r.steps) expect(s.overlay).not.toBe(locked[0].steps[0].overlay)
})

test('an impossible plan says what to loosen, a wrong one where it is wrong', async () => {
  const { body } = await plan({ families: ['triad'], motion: '+1', motionScope: 'throughout', fadeMax: 3 })
  expect(body.routes).toEqual([])
  expect(body.impossible.loosen).toContainEqual(expect.stringMatching(/^Allow a fade of \d+ instead of 3 at most\.$/))
  const nowhere = (await plan({ text: '| Dm7 | % |', recipe: 'minor pentatonics rising' })).body
  expect(nowhere).toEqual({
    routes: [],
    impossible: { steps: [], loosen: ['minor pentatonics rising applies nowhere in these bars.'] },
  })
  const wrong: readonly (readonly [object, string, number | undefined])[] = [
    [{ text: '| Dm7 | Hm7 |' }, 'text', 8],
    [{ key: 'H' }, 'key', 0],
    [{ arc: [1, 2] }, 'arc', undefined],
    [{ lock: [{ step: 4, overlay: 'E' }] }, 'lock.0.step', undefined],
    [{ lock: [{ step: 0, overlay: 'E foo' }] }, 'lock.0.overlay', 2],
    [{ ban: [{ step: 0 }] }, 'ban.0', undefined],
    [{ ban: [{ device: 'a trick' }] }, 'ban.0.device', 0],
    [{ motion: 'sideways' }, 'motion', 0],
    [{ motionScope: 'now' }, 'motionScope', undefined],
    [{ families: ['harbour'] }, 'families.0', undefined],
    [{ hold: ['14'] }, 'hold.0', undefined],
    [{ recipe: 'stew' }, 'recipe', undefined],
    [{ bars: [9, 12] }, 'bars', undefined],
    [{ text: Array(600).fill('| Dm7 ').join('') }, 'bars', undefined],
  ]
  for (const [asked, path, at] of wrong) {
    const { status, body: said } = await plan(asked)
    expect([status, said.errors?.[0].path, said.errors?.[0].at], JSON.stringify(asked)).toEqual([400, path, at])
  }
})

test('a route is kept, changed with its version, exported, removed and brought back; it outlives its chart', async () => {
  const api = (method: string, path: string, body?: unknown) => call(server.address, method, path, body)
  const chart = (await api('POST', 'charts', { title: 'Half Tide', text: TURN })).body
  const [route] = (await plan({ families: ['triad'], limit: 1 })).body.routes
  const made = await api('POST', 'routes', {
    name: 'Slack water',
    chartId: chart.id,
    steps: route.steps,
    rules: { motion: 'free' },
  })
  expect([made.status, made.body.version, made.body.steps.length]).toEqual([201, 1, 4])
  const { id, ...row } = made.body
  const stale = await api('PUT', `routes/${id}`, { ...row, name: 'Ebb', version: 7 })
  expect([stale.status, stale.body.current.name]).toEqual([409, 'Slack water'])
  expect((await api('PUT', `routes/${id}`, { ...row, name: 'Ebb' })).body).toMatchObject({ name: 'Ebb', version: 2 })
  const exported = async (as: string) => {
    const response = await fetch(`${server.address}api/v1/routes/${id}/export?as=${as}`)
    return [response.status, response.headers.get('content-disposition') ?? '', await response.text()] as const
  }
  const [status, name, text] = await exported('text')
  expect([status, name, text.split('\n')[0]]).toEqual([
    200,
    "attachment; filename*=UTF-8''Ebb.txt",
    'Ebb over Half Tide',
  ])
  expect((await exported('csv'))[2]).toContain(`1,1,4,Dm7,${route.steps[0].overlay},`)
  expect((await exported('musicxml'))[2]).toContain(`<words>${route.steps[0].overlay}</words>`)
  expect((await exported('midi'))[0]).toBe(400)
  expect((await api('POST', 'routes', { name: 'x', steps: [{ overlay: 'E foo' }] })).body.errors[0]).toMatchObject({
    path: 'steps.0.overlay',
    at: 2,
  })
  expect((await api('POST', 'routes', { name: 'x', steps: [], chartId: 'gone' })).body.errors[0].path).toBe('chartId')
  await api('DELETE', `charts/${chart.id}`)
  expect((await exported('musicxml'))[0]).toBe(400)
  expect((await exported('text'))[2].split('\n')[0]).toBe('Ebb')
  const { body: removed } = await api('DELETE', `routes/${id}`)
  expect((await api('GET', `routes/${id}`)).status).toBe(404)
  expect((await api(removed.undo.method, 'undo', removed.undo.body)).body).toMatchObject({
    kind: 'routes',
    action: 'delete',
    row: { name: 'Ebb' },
  })
  expect((await api('GET', 'routes?q=ebb&sort=title')).body.items).toHaveLength(1)
})

const WAKE = 'X:1\nM:4/4\nL:1/8\nK:C\nz F E D _E2 G2 | _A B _d e ^f e _d B | c4 z4 |'

test('a line is taken apart as agreed, however it is sent', async () => {
  const spec = (await get('openapi.json', {})).body
  const { schema } = spec.paths['/lines/audit'].post.responses[200].content['application/json']
  const validate = new Ajv2019({ strict: false, allErrors: true }).compile(schema)
  const audit = (asked: object) => call(server.address, 'POST', 'lines/audit', { text: '| Cm7 | G7 | Cm7 |', ...asked })
  const { status, body } = await audit({
    line: { abc: WAKE },
    also: { wayHome: 'angular' },
    route: {
      steps: [
        { bar: 1, beat: 1, fade: 10 },
        { bar: 2, beat: 1, fade: 60, overlay: 'Ab altered' },
      ],
    },
  })
  expect([status, validate(body) ? [] : validate.errors]).toEqual([200, []])
  expect(body.notes).toHaveLength(14)
  expect(body.notes[0]).toEqual({
    n: 1,
    bar: 1,
    beat: 1.5,
    strong: false,
    pitch: 65,
    name: 'F',
    at: 480,
    for: 480,
    degree: '11',
    role: 'extension',
    fade: 20,
    job: 'enclosure',
    planned: 10,
  })
  expect(body.notes.map((n: { n: number }) => n.n)).toEqual(Array.from({ length: 14 }, (_, i) => i + 1))
  expect(body.verdict).toContainEqual({
    text: 'Notes 1-3 enclose Eb (the b3 of Cm7).',
    notes: [1, 2, 3, 4],
    tone: 'good',
  })
  // What the dominant has of its own on the way home is colour; a slip is a stretch, with its landing.
  expect(body.stretches).toEqual([])
  const slip = ['D4', 'F4', 'A4', 'C5', 'Eb4', 'Gb4', 'Bb4', 'Db5', 'C5', 'A4']
  const away = await audit({
    text: '| Dm7 | % |',
    line: { notes: slip.map((pitch, i) => ({ at: i * 480, for: 480, pitch })) },
  })
  expect(away.body.stretches).toMatchObject([
    { from: 5, to: 8, landing: { how: 'half step down', degree: 'b7', bar: 2, beat: 1, afterBeats: 0 } },
  ])
  expect(body.also.length).toBeGreaterThan(0)
  const notes = [
    { at: 0, for: 480, pitch: 60 },
    { at: 480, for: 480, pitch: 'Eb4' },
    { at: 960, for: 960, pitch: 'B3' },
  ]
  const named = (await audit({ line: { notes } })).body
  expect(named.notes.map((n: { pitch: number; name: string; degree: string }) => [n.pitch, n.name, n.degree])).toEqual([
    [60, 'C', '1'],
    [63, 'Eb', 'b3'],
    [59, 'B', '7'],
  ])
  const made = await call(server.address, 'POST', 'lines', {
    name: 'Wake',
    text: '| Cm7 | G7 | Cm7 |',
    line: { abc: WAKE },
  })
  expect([made.status, made.body.version]).toEqual([201, 1])
  const file = async (as: string) =>
    (await fetch(`${server.address}api/v1/lines/${made.body.id}/export?as=${as}`)).text()
  const again = (await audit({ line: { musicxml: await file('musicxml') } })).body
  expect(again.notes.map((n: { pitch: number }) => n.pitch)).toEqual(body.notes.map((n: { pitch: number }) => n.pitch))
  expect((await file('midi')).slice(0, 4)).toBe('MThd')
  const form = new FormData()
  const midi = await fetch(`${server.address}api/v1/lines/${made.body.id}/export?as=midi`)
  form.set('file', new File([await midi.arrayBuffer()], 'wake.mid'))
  const looked = await (
    await fetch(`${server.address}api/v1/lines/read?grid=sixteenths`, { method: 'POST', body: form })
  ).json()
  expect(looked.notes.map((n: { pitch: number }) => n.pitch)).toEqual(body.notes.map((n: { pitch: number }) => n.pitch))
  expect([looked.voices.length, looked.chosen, looked.leftOut]).toEqual([1, 0, []])
  form.set('file', new File(['no line at all'], 'wake.txt'))
  const refusedFile = await fetch(`${server.address}api/v1/lines/read`, { method: 'POST', body: form })
  expect([refusedFile.status, (await refusedFile.json()).code]).toEqual([400, 'bad_file'])
  expect((await file('csv')).split('\n')[1]).toBe('480,480,65,F,4')
  const wrong: readonly (readonly [object, string])[] = [
    [{ line: { notes: [{ at: 0, for: 480, pitch: 'H4' }] } }, 'line.notes.0.pitch'],
    [{ line: { notes: [] } }, 'line'],
    [{ line: {} }, 'line'],
    [{ line: { abc: 'no tune' } }, 'line.abc'],
    [{ line: { abc: WAKE }, text: '| Hm7 |' }, 'text'],
  ]
  for (const [asked, path] of wrong) {
    const { status: refused, body: said } = await audit(asked)
    expect([refused, said.errors?.[0].path], JSON.stringify(asked)).toEqual([400, path])
  }
  expect(
    (await call(server.address, 'POST', 'lines', { name: 'x', line: { abc: 'no tune' } })).body.errors[0].path,
  ).toBe('line.abc')
})

test('a line keeps what was played, what is disputed and what planned it; it goes out with a band', async () => {
  const text = 'title = Float\n| Dm7 | G7 |'
  const chartId = (await call(server.address, 'POST', 'charts', { title: 'Float', text })).body.id
  const route = { name: 'Over', chartId, steps: [{ bar: 1, beat: 1, overlay: 'D dorian', fade: 0 }] }
  const routeId = (await call(server.address, 'POST', 'routes', route)).body.id
  const notes = [
    { at: 0, for: 480, pitch: 62 },
    { at: 480, for: 480, pitch: 65 },
  ]
  const played = [{ at: 12, for: 300, pitch: 62 }]
  const plain = await call(server.address, 'POST', 'lines', { name: 'Float', chartId, line: { notes } })
  expect(plain.body).toMatchObject({ disputed: null, played: null, routeId: null, version: 1 })
  const whole = { ...plain.body, played, disputed: ['0: Note 1, _, ends.'], routeId }
  const put = await call(server.address, 'PUT', `lines/${plain.body.id}`, whole)
  expect([put.status, put.body.version]).toEqual([200, 2])
  expect((await call(server.address, 'GET', `lines/${plain.body.id}`)).body).toMatchObject({ played, routeId })
  for (const [field, value] of [
    ['routeId', 'nowhere'],
    ['played', [{ at: -1, for: 1, pitch: 60 }]],
    ['disputed', [7]],
  ] as const) {
    const wrong = await call(server.address, 'PUT', `lines/${plain.body.id}`, { ...whole, version: 2, [field]: value })
    expect(wrong.status, field).toBe(400)
    expect(wrong.body.errors[0].path, field).toMatch(new RegExp(`^${field}`))
  }
  const file = async (query: string) => {
    const answer = await fetch(`${server.address}api/v1/lines/${plain.body.id}/export?as=midi${query}`)
    return { status: answer.status, bytes: Buffer.from(await answer.arrayBuffer()) }
  }
  const [alone, band] = [await file(''), await file('&band=true&feel=samba&tempo=200')]
  expect([alone.bytes.readUInt16BE(10), band.bytes.readUInt16BE(10)]).toEqual([1, 4])
  expect((await file('&band=true&tempo=9')).status).toBe(400)
})
