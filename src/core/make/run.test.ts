import fc from 'fast-check'
import { expect, test } from 'vitest'
import { setOf } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { runThrough } from './run.ts'

const A_MINOR = setOf([9, 0, 2, 4, 7])
const BB_MINOR = setOf([10, 1, 3, 5, 8])

test('a run goes on by a half step over the seam, and rests where nothing is laid', () => {
  const run = runThrough(
    [
      { from: 0, to: 1920, set: A_MINOR },
      { from: 1920, to: 3840, set: BB_MINOR },
      { from: 7680, to: 8640, set: A_MINOR },
    ],
    480,
  )
  expect(run.map((n) => n.pitch)).toEqual([67, 69, 72, 74, 75, 77, 80, 82, 81, 79].slice(0, 8).concat([81, 79]))
  expect(run.map((n) => n.at)).toEqual([0, 480, 960, 1440, 1920, 2400, 2880, 3360, 7680, 8160])
})

test('every note is of its set and in range; no two neighbours are further apart than the set’s own gaps', () => {
  const sets = fc.array(fc.integer({ min: 1, max: 4095 }), { minLength: 1, maxLength: 6 })
  fc.assert(
    fc.property(sets, (masks) => {
      const steps = masks.map((m, i) => ({ from: i * 1920, to: (i + 1) * 1920, set: m as PcSet }))
      for (const n of runThrough(steps, 480)) {
        const set = steps[Math.floor(n.at / 1920)]?.set ?? 0
        expect(set & (1 << pitchClass(n.pitch))).toBeGreaterThan(0)
        expect(n.pitch).toBeGreaterThanOrEqual(58)
        expect(n.pitch).toBeLessThanOrEqual(82)
      }
    }),
  )
})
