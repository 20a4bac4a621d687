// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { DEFAULT_SCHOOL, takeLineApart, verdictOf } from '../../core/index.ts'
import { NO_FILTERS } from './filters.ts'
import { $kept, type Kept } from './kept.ts'
import {
  $writing,
  clearWriting,
  dropHeldLine,
  editLine,
  editNote,
  heldLine,
  playInto,
  putBackHeld,
  setBeats,
  typeInto,
} from './line-editing.ts'
import { $lines, $taken, lineAsk, moveLine, quantiseLine, refreshLines } from './lines.ts'
import { markLoop, moveLoop, pressPedal, setFeel, setLoop, setTempoTo } from './looping.ts'
import { $notice } from './notices.ts'
import { $place, readPlace } from './place.ts'
import type { KeptNote, LineRow } from './rows.ts'
import { $marked, $verdict, isDisputed, lookAt, moveSentence, turnDispute } from './verdict.ts'

const STAMP = { createdAt: '', updatedAt: '' }
const TEXT = 'tempo = 100\n== A\n| Dm7 | G7 |\n== B\n| Cmaj7 | % |'
const KEPT: Kept = {
  charts: [{ id: 'c1', title: 'Buoy' }],
  chart: { ...STAMP, id: 'c1', version: 1, title: 'Buoy', text: TEXT, tags: [], overrides: null },
  missing: false,
  loading: false,
  ideas: [],
  route: null,
  settings: [],
}
const ROW: LineRow = {
  ...STAMP,
  id: 'l1',
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
  if (init?.method !== 'PUT') return answer(200, path.includes('lines') ? { items: [server.row] } : { items: [] })
  const body = JSON.parse(String(init.body)) as LineRow
  if (body.version !== server.row.version)
    return answer(409, { code: 'stale_version', detail: 'changed', current: server.row })
  server.row = { ...server.row, ...body, version: body.version + 1 }
  server.puts.push(server.row)
  return answer(200, server.row)
}

const notes = (): readonly KeptNote[] => {
  const line = $lines.get()?.[0]?.line
  return line && 'notes' in line ? line.notes : []
}
const pitches = () => notes().map((n) => n.pitch)
const kept = () => ('notes' in server.row.line ? server.row.line.notes.map((n) => n.pitch) : [])

beforeEach(async () => {
  Object.assign(server, { row: ROW, dead: false, puts: [] })
  vi.stubGlobal('fetch', served)
  localStorage.clear()
  $kept.set(KEPT)
  const place = readPlace('/line', new URLSearchParams('chart=c1&line=l1'))
  if (!place) throw new Error('no place')
  $place.set({ ...place, filters: NO_FILTERS })
  clearWriting()
  setBeats(0.5)
  await refreshLines()
})
afterEach(() => vi.unstubAllGlobals())

describe('a line that is written', () => {
  it('shows each note at once, keeps them in order, and stands on the last', async () => {
    expect(typeInto('b3 5 b7')).toBe(true)
    expect(pitches()).toEqual([62, 65, 69, 72])
    expect($place.get()?.note).toBe(3)
    expect(typeInto('9')).toBe(true)
    await vi.waitFor(() => expect(kept()).toEqual([62, 65, 69, 72, 76]))
    expect($lines.get()?.[0]?.version).toBe(server.row.version)
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

  it('a dead server loses nothing: the notes are held here, sent with the next change, or offered back', async () => {
    server.dead = true
    typeInto('5')
    await vi.waitFor(() => expect(localStorage.getItem('crossfade-line-l1')).toContain('57'))
    expect($notice.get()?.text).toContain('held in this browser')
    server.dead = false
    typeInto('b7')
    await vi.waitFor(() => expect(kept()).toEqual([62, 57, 60]))
    expect(localStorage.getItem('crossfade-line-l1')).toBeNull()
    server.dead = true
    typeInto('9')
    await vi.waitFor(() => expect(localStorage.getItem('crossfade-line-l1')).not.toBeNull())
    server.dead = false
    await refreshLines()
    const row = $lines.get()?.[0]
    if (!row) throw new Error('no line')
    expect(pitches()).toEqual([62, 57, 60])
    expect(heldLine(row)).not.toBeNull()
    putBackHeld(row)
    expect(pitches()).toEqual([62, 57, 60, 64])
    await vi.waitFor(() => expect(kept()).toEqual([62, 57, 60, 64]))
    localStorage.setItem('crossfade-line-l1', JSON.stringify({ notes: [] }))
    dropHeldLine(row)
    expect(heldLine(row)).toBeNull()
  })

  it('the same note written again after an undo is kept again', async () => {
    typeInto('5')
    await vi.waitFor(() => expect(kept()).toEqual([62, 57]))
    server.row = { ...server.row, version: server.row.version + 1, line: ROW.line }
    await refreshLines()
    typeInto('5')
    await vi.waitFor(() => expect(kept()).toEqual([62, 57]))
  })

  it('changed elsewhere meanwhile, it is shown as it is there', async () => {
    server.row = { ...ROW, version: 7, line: { notes: [{ at: 0, for: 960, pitch: 50 }] } }
    typeInto('5')
    await vi.waitFor(() => expect(pitches()).toEqual([50]))
    expect($notice.get()?.text).toContain('changed elsewhere')
    expect(kept()).toEqual([50])
  })
})

describe('a line that was brought', () => {
  const played = [
    { at: 10, for: 300, pitch: 62 },
    { at: 330, for: 300, pitch: 64 },
    { at: 645, for: 300, pitch: 65 },
  ]
  it('is moved with what was played, and brought to another grid from there', async () => {
    server.row = { ...ROW, line: { notes: played }, played }
    await refreshLines()
    const row = $lines.get()?.[0] as LineRow
    await moveLine(row, notes(), 960)
    expect(server.row.played?.[0]?.at).toBe(970)
    await quantiseLine(server.row, 'triplets')
    expect(notes().map((n) => n.at)).toEqual([960, 1280, 1600])
    await quantiseLine(server.row, 'sixteenths')
    expect(notes().map((n) => n.at)).toEqual([960, 1200, 1680])
    await moveLine(server.row, notes(), -9600)
    expect($notice.get()?.text).toContain('before the chart does')
  })
})

describe('the verdict', () => {
  it('is walked sentence by sentence; a dispute of one stays, for whatever instrument it is read', async () => {
    server.row = { ...ROW, line: { notes: [{ at: 7680, for: 3840, pitch: 65 }] } }
    await refreshLines()
    const row = $lines.get()?.[0] as LineRow
    const said = (instrument: string) => {
      const settings = [{ ...STAMP, id: 's', version: 1, name: 'instrument', value: instrument }]
      const ask = lineAsk(row, notes(), { ...KEPT, settings })
      const taken = ask && takeLineApart(ask)
      if (!taken) throw new Error('not taken apart')
      $taken.set(taken)
      return verdictOf(taken.audit, DEFAULT_SCHOOL)
    }
    $verdict.set(said('concert'))
    const [first] = $verdict.get()
    if (!first) throw new Error('nothing said')
    expect(first.text).toContain('F (the 11 of Cmaj7)')
    moveSentence(1)
    expect($marked.get()).toEqual(first.notes)
    lookAt(first)
    expect($marked.get()).toEqual([])
    turnDispute(row, first)
    await vi.waitFor(() => expect(server.row.disputed).toHaveLength(1))
    expect(isDisputed(server.row, first)).toBe(true)
    const [inBb] = said('bb')
    expect(inBb?.text).toContain('G (the 11 of Dmaj7)')
    expect(inBb && isDisputed(server.row, inBb)).toBe(true)
    turnDispute(server.row, first)
    await vi.waitFor(() => expect(server.row.disputed).toEqual([]))
  })
})

describe('what is played round', () => {
  const loop = () => $place.get()?.loop
  const at = (bar: number) => {
    const place = $place.get()
    if (place) $place.set({ ...place, bar })
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
    expect($place.get()).toMatchObject({ tempo: 90, feel: 'bossa' })
    setTempoTo(100)
    setFeel('swing')
    expect($place.get()).toMatchObject({ tempo: null, feel: null })
  })
  it('at rest the pedal moves by chords; two presses too near to be a foot’s are two', () => {
    $place.set({ ...($place.get() as NonNullable<ReturnType<typeof $place.get>>), view: 'desk' })
    pressPedal(1, 1000)
    pressPedal(1, 1040)
    expect($place.get()?.bar).toBe(3)
    pressPedal(-1, 5000)
    expect($place.get()?.bar).toBe(2)
  })
})
