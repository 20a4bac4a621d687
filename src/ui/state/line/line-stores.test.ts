// @vitest-environment happy-dom
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { analyseLine, DEFAULT_SCHOOL, verdictOf } from '../../../core/index.ts'
import { $address } from '../address/address.ts'
import { startKept } from '../kept/kept.ts'
import type { KeptNote, LineRow } from '../kept/row-types.ts'
import { $rows, adoptRows, settleRow } from '../kept/rows.ts'
import { $notice } from '../page/notices.ts'
import { markLoop, moveLoop, pressPedal, setFeel, setLoop, setTempoTo } from '../sound/looping.ts'
import { addressAt, keptChart } from '../testing/kept.ts'
import { $writing, clearWriting, editLine, editNote, playInto, setBeats, typeInto } from './line-editing.ts'
import { $lineAnalysis, lineAsk, moveLine, quantiseLine } from './lines.ts'
import { $marked, $verdict, isDisputed, lookAt, moveSentence, toggleDispute } from './verdict.ts'

const STAMP = { createdAt: '', updatedAt: '' }
const TEXT = 'tempo = 100\n== A\n| Dm7 | G7 |\n== B\n| Cmaj7 | % |'
const KEPT = keptChart(TEXT)
const ROW: LineRow = {
  ...STAMP,
  id: 'l0',
  version: 1,
  name: 'Bell',
  chartId: 'c1',
  text: null,
  line: { notes: [{ at: 0, for: 480, pitch: 62 }] },
  tags: [],
  disputed: null,
  played: null,
  routeId: null,
}

/** A server of one line: it keeps what is put, refuses stale versions, and can be dead. */
const server = { row: ROW, dead: false, puts: [] as LineRow[] }
const answer = (status: number, body: unknown) => new Response(JSON.stringify(body), { status })
const served = async (path: string, init?: RequestInit): Promise<Response> => {
  if (server.dead) throw new TypeError('nothing answers')
  if (init?.method !== 'PUT') return answer(200, { items: [], next: null })
  const body = JSON.parse(String(init.body)) as LineRow
  // A line of an earlier test is still being sent.
  if (!path.includes(`${server.row.id}?`)) return answer(200, { ...body, id: 'l0', version: body.version + 1 })
  if (body.version !== server.row.version)
    return answer(409, { code: 'stale_version', detail: 'changed', current: server.row })
  server.row = { ...server.row, ...body, version: body.version + 1 }
  server.puts.push(server.row)
  return answer(200, server.row)
}

const row = (): LineRow => {
  const found = $rows.lines.get()[server.row.id]?.row
  if (!found) throw new Error('no line')
  return found
}
const notes = (): readonly KeptNote[] => ('notes' in row().line ? (row().line as { notes: KeptNote[] }).notes : [])
const pitches = () => notes().map((n) => n.pitch)
const kept = () => ('notes' in server.row.line ? server.row.line.notes.map((n) => n.pitch) : [])
const standing = () => $rows.lines.get()[server.row.id]?.state

let count = 0
/** Another line, as the server has it, is in view. */
const begin = (change: Partial<LineRow> = {}): void => {
  server.row = { ...ROW, ...change, id: `l${++count}` }
  adoptRows('lines', [server.row])
  $address.set(addressAt(`/line?chart=c1&line=${server.row.id}`))
}

beforeAll(() => {
  vi.stubGlobal('fetch', served)
  $address.set(addressAt('/line?chart=c1'))
  startKept(KEPT)
})
beforeEach(() => {
  Object.assign(server, { dead: false, puts: [] })
  begin()
  clearWriting()
  setBeats(0.5)
})

describe('a line that is written', () => {
  it('shows each note at once, keeps them in order, and stands on the last', async () => {
    expect(typeInto('b3 5 b7')).toBe(true)
    expect(pitches()).toEqual([62, 65, 69, 72])
    expect($address.get()?.note).toBe(3)
    expect(typeInto('9')).toBe(true)
    await vi.waitFor(() => expect(kept()).toEqual([62, 65, 69, 72, 76]))
    await vi.waitFor(() => expect([standing(), row().version]).toEqual(['kept', server.row.version]))
  })

  it('goes on after a rest, and takes a length for what follows', () => {
    typeInto('r 5')
    expect(notes().at(-1)).toMatchObject({ at: 960, for: 480 })
    typeInto(':1/3 b3')
    expect(notes().at(-1)).toMatchObject({ at: 1440, for: 320 })
    expect($writing.get().beats).toBeCloseTo(1 / 3)
    typeInto('r')
    playInto(70)
    expect(notes().at(-1)).toMatchObject({ at: 1440 + 640, for: 320, pitch: 70 })
  })

  it('what is not understood is told and changes nothing', async () => {
    expect(typeInto('5 x')).toBe(false)
    expect($writing.get().error).toMatchObject({ found: 'x', at: 2 })
    expect(pitches()).toEqual([62])
    expect(server.puts).toEqual([])
  })

  it.each([
    ['up', [62, 66]],
    ['octave down', [62, 53]],
    ['remove', [62]],
  ] as const)('the note in view is moved: %s', (edit, expected) => {
    typeInto('b3')
    editNote(edit)
    expect(pitches()).toEqual(expected)
  })

  it('is held, displaced and moved as a whole, not out over its beginning', () => {
    editNote('longer')
    expect(notes()[0]?.for).toBe(960)
    editNote('shorter')
    editNote('shorter')
    expect(notes()[0]?.for).toBe(480)
    editNote('later')
    expect(notes()[0]?.at).toBe(480)
    editLine({ semitones: -12 })
    expect(pitches()).toEqual([50])
    editLine({ beats: -4 })
    expect(notes()[0]?.at).toBe(480)
    expect($notice.get()?.text).toContain('before the chart does')
  })

  it('a dead server loses nothing: the notes are held here, and sent when it answers', async () => {
    server.dead = true
    typeInto('5')
    await vi.waitFor(() => expect(standing()).toBe('unreachable'))
    const held = Object.values({ ...localStorage }).filter((text) => String(text).includes(server.row.id))
    expect(held).toHaveLength(1)
    server.dead = false
    await vi.waitFor(() => expect(kept()).toEqual([62, 57]), { timeout: 5000 })
    await vi.waitFor(() => expect(standing()).toBe('kept'))
    expect(Object.values({ ...localStorage }).filter((text) => String(text).includes(server.row.id))).toEqual([])
  })

  it('the same note written again after an undo is kept again', async () => {
    typeInto('5')
    await vi.waitFor(() => expect(standing()).toBe('kept'))
    server.row = { ...server.row, version: server.row.version + 1, line: ROW.line }
    adoptRows('lines', [server.row])
    expect(pitches()).toEqual([62])
    typeInto('5')
    await vi.waitFor(() => expect(kept()).toEqual([62, 57]))
  })

  it('changed elsewhere meanwhile, both are shown, and writing goes on', async () => {
    server.row = { ...server.row, version: 7, line: { notes: [{ at: 0, for: 960, pitch: 50 }] } }
    typeInto('5')
    await vi.waitFor(() => expect(standing()).toBe('conflict'))
    typeInto('b7')
    expect(pitches()).toEqual([62, 57, 60])
    expect($rows.lines.get()[server.row.id]?.theirs?.line).toEqual({ notes: [{ at: 0, for: 960, pitch: 50 }] })
    expect(kept()).toEqual([50])
    settleRow('lines', server.row.id, 'mine')
    await vi.waitFor(() => expect(kept()).toEqual([62, 57, 60]))
  })
})

describe('a line that was brought', () => {
  const played = [
    { at: 10, for: 300, pitch: 62 },
    { at: 330, for: 300, pitch: 64 },
    { at: 645, for: 300, pitch: 65 },
  ]
  it('is moved with what was played, and brought to another grid from there', async () => {
    begin({ line: { notes: played }, played })
    moveLine(row(), notes(), 960)
    expect(row().played?.[0]?.at).toBe(970)
    quantiseLine(row(), 'triplets')
    expect(notes().map((n) => n.at)).toEqual([960, 1280, 1600])
    quantiseLine(row(), 'sixteenths')
    expect(notes().map((n) => n.at)).toEqual([960, 1200, 1680])
    moveLine(row(), notes(), -9600)
    expect($notice.get()?.text).toContain('before the chart does')
    await vi.waitFor(() => expect(server.row.line).toEqual(row().line))
  })
})

describe('the verdict', () => {
  it('is walked sentence by sentence; a dispute of one stays, for whatever instrument it is read', async () => {
    begin({ line: { notes: [{ at: 7680, for: 3840, pitch: 65 }] } })
    const said = (instrument: string) => {
      const settings = [{ ...STAMP, id: 's', version: 1, name: 'instrument', value: instrument }]
      const ask = lineAsk(row(), notes(), { ...KEPT, settings })
      const lineAnalysis = ask && analyseLine(ask)
      if (!lineAnalysis) throw new Error('not taken apart')
      $lineAnalysis.set(lineAnalysis)
      return verdictOf(lineAnalysis.audit, DEFAULT_SCHOOL)
    }
    $verdict.set(said('concert'))
    const [first] = $verdict.get()
    if (!first) throw new Error('nothing said')
    expect(first.text).toContain('F (the 11 of Cmaj7)')
    moveSentence(1)
    expect($marked.get()).toEqual(first.notes)
    lookAt(first)
    expect($marked.get()).toEqual([])
    toggleDispute(row(), first)
    await vi.waitFor(() => expect(server.row.disputed).toHaveLength(1))
    expect(isDisputed(row(), first)).toBe(true)
    const [inBb] = said('bb')
    expect(inBb?.text).toContain('G (the 11 of Dmaj7)')
    expect(inBb && isDisputed(row(), inBb)).toBe(true)
    toggleDispute(row(), first)
    await vi.waitFor(() => expect(server.row.disputed).toEqual([]))
  })
})

describe('what is played round', () => {
  const loop = () => $address.get()?.loop
  const at = (bar: number) => {
    const address = $address.get()
    if (address) $address.set({ ...address, bar })
  }
  it('is marked from and to the bar in view, and never turned round', () => {
    at(2)
    markLoop('from')
    expect(loop()).toEqual({ from: 2, to: 4 })
    at(3)
    markLoop('to')
    expect(loop()).toEqual({ from: 2, to: 3 })
    at(4)
    markLoop('from')
    expect(loop()).toEqual({ from: 4, to: 4 })
    setLoop({ from: 1, to: 4 })
    expect(loop()).toBeNull()
  })
  it('goes on to the next part of the form and round, or by its own length', () => {
    at(3)
    moveLoop(1)
    expect(loop()).toEqual({ from: 3, to: 4 })
    moveLoop(1)
    expect(loop()).toEqual({ from: 1, to: 2 })
    moveLoop(-1)
    expect(loop()).toEqual({ from: 3, to: 4 })
    setLoop({ from: 1, to: 1 })
    moveLoop(1)
    expect(loop()).toEqual({ from: 2, to: 2 })
    moveLoop(-1)
    moveLoop(-1)
    expect(loop()).toEqual({ from: 4, to: 4 })
  })
  it('tempo and feel are told only where they are not the chart’s own', () => {
    setTempoTo(90)
    setFeel('bossa')
    expect($address.get()).toMatchObject({ tempo: 90, feel: 'bossa' })
    setTempoTo(100)
    setFeel('swing')
    expect($address.get()).toMatchObject({ tempo: null, feel: null })
  })
  it('at rest the pedal moves by chords; two presses too near to be a foot’s are two', () => {
    $address.set({ ...($address.get() as NonNullable<ReturnType<typeof $address.get>>), view: 'desk' })
    pressPedal(1, 1000)
    pressPedal(1, 1040)
    expect($address.get()?.bar).toBe(3)
    pressPedal(-1, 5000)
    expect($address.get()?.bar).toBe(2)
  })
})
