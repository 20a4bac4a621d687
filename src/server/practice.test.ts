import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { check } from './check.ts'
import { openDatabase } from './database.ts'
import {
  cardsAnswer,
  courseAnswer,
  coverageAnswer,
  PRACTICE_ANSWERS,
  PRACTICE_QUERIES,
  todayAnswer,
} from './practice.ts'
import { createRow, deleteRow, undo, updateRow } from './rows.ts'
import { READABLE, ROWS } from './schemas.ts'
import type { Database } from './sql.ts'

const directory = mkdtempSync(join(tmpdir(), 'crossfade-practice-'))
let db: Database
beforeAll(async () => {
  db = await openDatabase(directory)
})
afterAll(async () => {
  await db.close()
  rmSync(directory, { recursive: true })
})

const NOW = '2026-11-20T09:00:00.000Z'
const ITEM = { name: 'Fives', of: { kind: 'overlay', overlay: 'B minor pentatonic', chord: 'Eb7' }, keys: 'fourths' }
const make = (kind: 'items' | 'log', row: object) => createRow(db, kind, check(ROWS[kind], row))
const round = (itemId: string, day: number, grade: string, more: object = {}) =>
  make('log', { at: `2026-11-${day}T18:30:00+02:00`, kind: 'round', itemId, key: 'Eb', tempo: 60, grade, ...more })

/** Every figure there is, each as its schema has it. */
const figures = async () => {
  const asked = check(PRACTICE_QUERIES.course, { now: NOW, zone: '0' })
  const all = {
    'practice/today': await todayAnswer(db, { ...asked, minutes: 25 }),
    'practice/cards': await cardsAnswer(db, asked),
    'practice/coverage': await coverageAnswer(db, asked),
    'practice/course': await courseAnswer(db, asked),
  }
  for (const [path, answer] of Object.entries(all))
    expect(PRACTICE_ANSWERS[path as keyof typeof all].validate(answer).error?.message, path).toBeUndefined()
  const card = all['practice/cards'].cards.find((c) => c.key === 'Eb')
  const cell = all['practice/coverage'].cells.find((c) => c.family === 'pentatonic' && c.key === 'Eb')
  const day = all['practice/course'].days.find((d) => d.day === '2026-11-18')
  const kinds = all['practice/today'].blocks.map((b) => b.kind)
  return { card, cell, day, kinds, today: all['practice/today'] }
}

describe('practice', () => {
  it('works every figure out of the log: an entry that is edited, undone or removed changes them all', async () => {
    const { id } = await make('items', ITEM)
    expect((await figures()).kinds).toEqual(['warm-up', 'new', 'free'])
    await round(id, 17, 'clean')
    const second = await round(id, 18, 'clean', { minutes: 4 })
    expect(second.at).toBe('2026-11-18T16:30:00.000Z')
    const clean = await figures()
    expect(clean.card).toMatchObject({ tempo: 64, best: 60, rounds: 2, share: 1, last: '2026-11-18T16:30:00.000Z' })
    expect(clean.cell).toMatchObject({ tempo: 60, clean: 1, last: '2026-11-18T16:30:00.000Z' })
    expect(clean.day).toMatchObject({ minutes: 4, rounds: 1, clean: 1 })
    expect(clean.kinds).not.toContain('due')

    const { id: _, version, createdAt: __, updatedAt: ___, ...fields } = second
    await updateRow(db, 'log', second.id, version, { ...fields, grade: 'again', minutes: 9 })
    const again = await figures()
    expect(again.card).toMatchObject({ tempo: 60, share: 0.5, grade: 'again' })
    expect(again.cell).toMatchObject({ clean: 0.5 })
    expect(again.day).toMatchObject({ minutes: 9, clean: 0 })
    expect(again.kinds).toContain('due')
    expect(again.card?.due && clean.card?.due && again.card.due < clean.card.due).toBe(true)

    await undo(db, null)
    expect(await figures()).toEqual(clean)
    await deleteRow(db, 'log', second.id)
    expect((await figures()).card).toMatchObject({ rounds: 1, tempo: 60, last: '2026-11-17T16:30:00.000Z' })
    await deleteRow(db, 'items', id)
    const gone = await figures()
    expect(gone.kinds).toEqual(['warm-up', 'free'])
    expect(gone.cell).toMatchObject({ tempo: 60, rounds: 1 })
  })

  it.each<[kind: 'items' | 'log', row: object, path: string]>([
    ['items', { ...ITEM, of: { ...ITEM.of, chord: 'Hm7' } }, 'of.chord'],
    ['items', { ...ITEM, of: { ...ITEM.of, overlay: 'B harbour' } }, 'of.overlay'],
    ['items', { ...ITEM, of: { kind: 'combine', sounds: ['E', 'quay'] } }, 'of.sounds.1'],
    ['items', { ...ITEM, keys: ['C', 'Cm'] }, 'keys.1'],
    ['items', { ...ITEM, keys: { order: 'fourths', without: ['H'] } }, 'keys.without.0'],
    ['items', { ...ITEM, keys: 'fifths and all' }, 'keys'],
    ['items', { ...ITEM, tempo: { from: 100, to: 60 } }, 'tempo.to'],
    ['items', { name: 'Nothing' }, 'of'],
    ['log', { kind: 'word' }, 'text'],
    ['log', { kind: 'round', grade: 'perfect' }, 'grade'],
    ['log', { kind: 'round', at: 'yesterday' }, 'at'],
    ['log', { kind: 'round', at: '0000-01-01T00:00:00Z' }, 'at'],
    ['log', { kind: 'rest' }, 'kind'],
  ])('refuses a row of %s that says %j, and names %s', async (kind, row, path) => {
    const refused = async () => READABLE[kind](check(ROWS[kind], row))
    const problem = await refused().then(
      () => null,
      (e: unknown) => e as { errors: readonly { path: string }[] },
    )
    expect(problem?.errors.map((e) => e.path)).toEqual([path])
  })

  it('keeps no entry of an item there is not', async () => {
    await expect(round('nowhere', 12, 'clean')).rejects.toMatchObject({ errors: [{ path: 'itemId' }] })
  })
})
