import fc from 'fast-check'
import { expect, test } from 'vitest'
import { midi } from '../pitch/units.ts'
import { fingeringOf } from './fingering.ts'
import { readTuning, TUNINGS } from './tuning.ts'

const guitar = (() => {
  const read = readTuning(TUNINGS[0].strings)
  if (!read.ok) throw new Error('no tuning')
  return read.value
})()
const fingered = (pitches: readonly number[]) => fingeringOf(pitches.map(midi), guitar)

test('a scale lies in one position', () => {
  const frets = fingered([60, 62, 64, 65, 67, 69, 71, 72]).flatMap((f) => (f && f.fret > 0 ? [f.fret] : []))
  expect(Math.max(...frets) - Math.min(...frets)).toBeLessThanOrEqual(4)
})

test('what is not on the neck has no place, and the rest goes on', () => {
  const all = fingered([30, 64, 20, 65])
  expect(all[0]).toBeNull()
  expect(all[2]).toBeNull()
  expect(all[1] && all[3]).toBeTruthy()
})

test('every place sounds its note, and no shift is larger than one of all strings would need', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 40, max: 80 }), { minLength: 1, maxLength: 24 }), (pitches) => {
      const all = fingered(pitches)
      for (const [i, f] of all.entries()) expect(f && (guitar[f.string] ?? 0) + f.fret).toBe(pitches[i])
    }),
  )
})
