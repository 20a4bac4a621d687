// @vitest-environment happy-dom
import { afterEach, expect, it, vi } from 'vitest'
import { $notice } from '../page/notices.ts'
import { $takes, recoverTakes } from './takes.ts'

const row = (id: string, notes: readonly object[], sound: object | null = null) => ({
  ...{ id, version: 1, createdAt: '2026-03-01T10:00:00Z', updatedAt: '2026-03-01T10:00:00Z', open: false },
  ...{ name: `Take ${id}`, notes, sound, tags: [] },
})
const recovered = async (...takes: readonly object[]): Promise<string | undefined> => {
  $notice.set(null)
  vi.stubGlobal('fetch', async () => new Response(JSON.stringify({ takes }), { status: 200 }))
  await recoverTakes()
  return $notice.get()?.text
}
afterEach(() => vi.unstubAllGlobals())

const NOTE = { at: 0, for: 100, pitch: 60 }

it('tells of takes that were cut off, where something was played in them', async () => {
  expect(await recovered(row('a', []))).toBeUndefined()
  expect(await recovered(row('b', []), row('c', [NOTE]))).toBe('A take was cut off: Take c. Its one note is kept.')
  // What the ear missed may still be in the sound.
  expect(await recovered(row('d', [NOTE]), row('e', [], { bytes: 9 }))).toContain('2 takes were cut off')
  expect($takes.get().map((t) => t.id)).toEqual(expect.arrayContaining(['c', 'd', 'e']))
  expect($takes.get()).toHaveLength(3)
})
