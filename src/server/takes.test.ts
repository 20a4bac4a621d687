import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseMidi } from 'midi-file'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULT_SCHOOL } from '../core/index.ts'
import { ANSWERS } from './answer-schemas.ts'
import { check } from './check.ts'
import { openDatabase } from './database.ts'
import { createRow, deleteRow, getRow, type Row, undo, updateRow } from './rows.ts'
import { READABLE, ROWS } from './schemas.ts'
import { getSound, putSound, removeSound } from './sounds.ts'
import type { Database } from './sql.ts'
import { TAKE_BODY } from './take-schemas.ts'
import { addPart, recoverTakes, takeAnswer, takeFile } from './takes.ts'

const directory = mkdtempSync(join(tmpdir(), 'crossfade-takes-'))
const before = process.env.CROSSFADE_DATA
let db: Database
beforeAll(async () => {
  process.env.CROSSFADE_DATA = directory
  db = await openDatabase(directory)
})
afterAll(async () => {
  await db.close()
  if (before === undefined) delete process.env.CROSSFADE_DATA
  else process.env.CROSSFADE_DATA = before
  rmSync(directory, { recursive: true })
})

const TEXT = '| Dm7 | % | % | % | Gm7 | % | % | % |'
const SLIP = {
  overlays: [
    { bar: 1, overlay: null },
    { bar: 3, overlay: 'Eb minor pentatonic' },
    { bar: 4, overlay: null },
  ],
}
const eighths = (pitches: readonly (number | string)[], at = 0) =>
  pitches.map((pitch, i) => ({ at: at + i * 480, for: 440, pitch }))
const BARS_IN = [62, 64, 65, 67, 69, 71, 72, 71, 69, 67, 65, 64, 62, 64, 65, 64]
const BAR_OUT = [63, 66, 68, 70, 73, 70, 68, 66]
const TAKE = { text: TEXT, notes: eighths([...BARS_IN, ...BAR_OUT, 65, 67, 69, 67, 65, 64, 62, 62]), tempo: 132 }

const read = (body: object) => takeAnswer(check(TAKE_BODY, body))
const make = (row: object) =>
  createRow(db, 'takes', check(ROWS.takes, { name: 'One', source: 'midi', ...TAKE, ...row }))

describe('reading a take', () => {
  it('answers in the shape it promises, with and without a plan', () => {
    for (const body of [TAKE, { ...TAKE, plan: SLIP }, { ...TAKE, plan: SLIP, bars: [3, 4], notes: eighths(BAR_OUT) }])
      expect(ANSWERS['takes/read'].validate(read(body)).error?.message).toBeUndefined()
  })

  it('tells step by step what was kept', () => {
    const { plan, sentences, timing } = read({ ...TAKE, plan: SLIP })
    expect(plan.steps.map((s) => [s.bar, s.overlay, s.inPlan])).toEqual([
      [1, null, 1],
      [3, 'Eb minor pentatonic', 1],
      [4, null, 1],
    ])
    expect(sentences.map((s) => [s.about, s.tone])).toEqual([
      ['kept', 'good'],
      ['landed', 'good'],
    ])
    expect(timing).toMatchObject({ mean: 0, spread: 0, swing: 50 })
  })

  it('takes what came late by the instrument’s delay off, and pitches by name', () => {
    const tick = 60_000 / 132 / 960
    const late = TAKE.notes.map((n) => ({ ...n, at: n.at + 180 / tick }))
    expect(read({ ...TAKE, notes: late, offset: 180 }).timing.mean).toBeCloseTo(0, 0)
    expect(read({ ...TAKE, notes: eighths(['D4', 'F#4', 'Bb4']) }).audit.notes.map((n) => n.pitch)).toEqual([
      62, 66, 70,
    ])
  })

  it('counts bars of a loop as the chart does', () => {
    const { audit, plan } = read({
      ...TAKE,
      plan: SLIP,
      bars: [3, 5],
      notes: eighths([...BAR_OUT, ...BARS_IN, 58, 62, 65, 67]),
    })
    expect([...new Set(audit.notes.map((n) => n.bar))]).toEqual([3, 4, 5])
    expect(plan.steps.map((s) => [s.bar, s.chorus])).toEqual([
      [3, 1],
      [4, 1],
    ])
  })

  it.each([
    [{ ...TAKE, notes: [] }, 'notes', 'no notes'],
    [{ ...TAKE, plan: { overlays: [{ bar: 99, overlay: null }] } }, 'plan.overlays.0.bar', 'no bar 99'],
    [{ ...TAKE, plan: { overlays: [{ bar: 1, overlay: 'H dorian' }] } }, 'plan.overlays.0.overlay', 'H'],
    [{ ...TAKE, bars: [7, 12] }, 'bars', 'no bar'],
    [{ ...TAKE, bars: [4, 2] }, 'bars', 'ends before'],
    [{ ...TAKE, text: '| Hm7 |' }, 'text', 'Hm7'],
    [{ ...TAKE, notes: [{ at: 0, for: 480, pitch: 'X9' }] }, 'notes.0.pitch', 'no pitch'],
    [{ ...TAKE, notes: [{ at: 0, for: 0, pitch: 60 }] }, 'notes.0.for', 'for'],
    [{ ...TAKE, tempo: 5 }, 'tempo', 'tempo'],
  ])('says where it is wrong: %j', (body, path, words) => {
    const problem = (() => {
      try {
        return read(body)
      } catch (error) {
        return error as { errors: readonly { path: string; message: string }[] }
      }
    })()
    expect(problem).toMatchObject({
      errors: [expect.objectContaining({ path, message: expect.stringContaining(words) })],
    })
  })
})

describe('a kept take', () => {
  it('stays as it was played, is removed and comes back', async () => {
    const row = await make({ plan: SLIP, offset: 12, bars: [1, 4] })
    expect(row).toMatchObject({ notes: TAKE.notes, offset: 12, bars: [1, 4], open: false, sound: null, key: null })
    const { change } = await deleteRow(db, 'takes', row.id)
    expect((await undo(db, change)).row).toMatchObject({ name: 'One', notes: TAKE.notes })
  })

  it('is not kept where its chart or its plan does not read', () => {
    const wrong = (row: object) => READABLE.takes(check(ROWS.takes, { name: 'One', source: 'midi', ...TAKE, ...row }))
    expect(() => wrong({ text: '| Hm7 |' })).toThrow()
    expect(() => wrong({ plan: { overlays: [{ bar: 1, overlay: 'foo' }] } })).toThrow()
  })

  it('that was cut off has every part that had come, each once', async () => {
    const { id } = await make({ open: true, notes: [] })
    const parts = [TAKE.notes.slice(0, 5), TAKE.notes.slice(5, 9), TAKE.notes.slice(9)]
    for (const [n, notes] of parts.entries()) await addPart(db, id, n, notes)
    await addPart(db, id, 1, parts[1] as object[])
    expect((await recoverTakes(db)).takes).toEqual([])
    await db.query(`update takes set updated_at = updated_at - interval '1 minute' where id = $1`, [id])
    await db.query(`update take_parts set at = at - interval '1 minute'`)
    expect((await recoverTakes(db)).takes).toMatchObject([{ id, open: false, notes: TAKE.notes }])
    expect(await db.query('select 1 from take_parts')).toEqual([])
    expect((await recoverTakes(db)).takes).toEqual([])
  })

  it('that ended by itself is left as it is, whatever parts had come', async () => {
    const open = await make({ open: true, notes: [] })
    await addPart(db, open.id, 0, TAKE.notes.slice(0, 3))
    const { version, id: _, createdAt: __, updatedAt: ___, ...fields } = open
    await updateRow(db, 'takes', open.id, version, { ...fields, notes: TAKE.notes, open: false })
    await recoverTakes(db)
    expect(await getRow(db, 'takes', open.id)).toMatchObject({ notes: TAKE.notes })
  })
})

describe('the sound of a take', () => {
  const bytes = (length: number, of: number) => new Uint8Array(length).fill(of)
  const told = (id: string): Promise<Row> => getRow(db, 'takes', id)

  it('grows part by part, is read in ranges, and is removed without the notes', async () => {
    const { id, version } = await make({})
    await putSound(db, id, 'audio/webm;codecs=opus', 0, bytes(10, 1))
    await putSound(db, id, 'audio/webm', 10, bytes(5, 2))
    expect(await told(id)).toMatchObject({ version, sound: { type: 'audio/webm', bytes: 15 } })
    const whole = await getSound(db, id, null)
    expect([whole.status, (await whole.arrayBuffer()).byteLength]).toEqual([200, 15])
    const part = await getSound(db, id, 'bytes=8-11')
    expect([part.status, part.headers.get('content-range')]).toEqual([206, 'bytes 8-11/15'])
    expect([...new Uint8Array(await part.arrayBuffer())]).toEqual([1, 1, 2, 2])
    expect((await getSound(db, id, 'bytes=15-')).status).toBe(416)
    await removeSound(db, id)
    expect(await told(id)).toMatchObject({ sound: null, notes: TAKE.notes })
    await expect(getSound(db, id, null)).rejects.toMatchObject({ code: 'not_found' })
  })

  it('survives an edit of the take, and begins anew from 0', async () => {
    const row = await make({})
    await putSound(db, row.id, 'audio/ogg', 0, bytes(20, 1))
    const { version, id, createdAt: _, updatedAt: __, ...fields } = row
    await updateRow(db, 'takes', id, version, { ...fields, name: 'Two' })
    expect(await told(id)).toMatchObject({ name: 'Two', sound: { bytes: 20 } })
    expect(await putSound(db, id, 'audio/webm', 0, bytes(3, 7))).toMatchObject({ bytes: 3, type: 'audio/webm' })
  })

  it('refuses what is no sound, a gap, too much, and a take that is not there', async () => {
    const { id } = await make({})
    await expect(putSound(db, id, 'text/html', 0, bytes(3, 1))).rejects.toMatchObject({ code: 'not_sound' })
    await expect(putSound(db, id, 'audio/webm', 7, bytes(3, 1))).rejects.toMatchObject({
      code: 'not_the_end',
      current: { bytes: 0 },
    })
    await expect(putSound(db, id, 'audio/webm', 0, bytes(33 * 1024 * 1024, 1))).rejects.toMatchObject({
      code: 'too_large',
    })
    await expect(putSound(db, '../x', 'audio/webm', 0, bytes(3, 1))).rejects.toMatchObject({ code: 'not_found' })
  })
})

describe('a take as a file', () => {
  it('is MIDI as it was played, in its place in the chart, and MusicXML on the grid', async () => {
    const row = await make({
      bars: [3, 4],
      notes: [{ at: 13, for: 400, pitch: 63, velocity: 0.5 }, ...eighths(BAR_OUT, 960)],
    })
    const midi = parseMidi(takeFile(row, 'midi', DEFAULT_SCHOOL) as Uint8Array)
    let at = 0
    const struck = midi.tracks[0]?.flatMap((e) => {
      at += e.deltaTime
      return e.type === 'noteOn' ? [[at, e.noteNumber]] : []
    })
    expect(struck?.slice(0, 2)).toEqual([
      [2 * 3840 + 13, 63],
      [2 * 3840 + 960, 63],
    ])
    expect(takeFile(row, 'musicxml', DEFAULT_SCHOOL)).toContain('<measure number="3"')
  })

  it('is none where nothing was played', async () => {
    const row = await make({ notes: [] })
    expect(() => takeFile(row, 'midi', DEFAULT_SCHOOL)).toThrow('nothing to write')
  })
})
