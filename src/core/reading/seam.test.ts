import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readOverlay } from '../material/read-overlay.ts'
import { rotate, setOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { motionBetween, seamBetween } from './seam.ts'

const apart = (a: number, b: number): number => Math.min(Math.abs(a - b), 12 - Math.abs(a - b))

/** Every pairing in which each note takes part, tried one by one. */
const bruteForce = (a: readonly number[], b: readonly number[]): number => {
  const edges = a.flatMap((x) => b.map((y) => [x, y] as const))
  let best = Number.POSITIVE_INFINITY
  for (let chosen = 1; chosen < 2 ** edges.length; chosen++) {
    const taken = edges.filter((_, i) => (chosen >> i) & 1)
    if (!a.every((x) => taken.some((e) => e[0] === x)) || !b.every((y) => taken.some((e) => e[1] === y))) continue
    best = Math.min(
      best,
      taken.reduce((sum, [x, y]) => sum + apart(x, y), 0),
    )
  }
  return best / Math.max(a.length, b.length)
}

const small = (most: number) =>
  fc
    .uniqueArray(fc.integer({ min: 0, max: 11 }), { minLength: 1, maxLength: most })
    .map((pcs) => [...pcs].sort((x, y) => x - y))
const anySet = fc.integer({ min: 1, max: 4095 }).map((n) => n as PcSet)

describe('the seam between two overlays', () => {
  it('moves as little as the cheapest of all pairings', () => {
    fc.assert(
      fc.property(small(4), small(4), (a, b) => {
        expect(motionBetween(setOf(a), setOf(b))).toBeCloseTo(bruteForce(a, b), 10)
      }),
      { numRuns: 300, seed: 5 },
    )
  })
  it('is the same both ways, in every key, and nothing for the same set', () => {
    fc.assert(
      fc.property(anySet, anySet, fc.integer({ min: 0, max: 11 }), (a, b, n) => {
        expect(motionBetween(a, b)).toBeCloseTo(motionBetween(b, a), 10)
        expect(motionBetween(rotate(a, n), rotate(b, n))).toBeCloseTo(motionBetween(a, b), 10)
        expect(motionBetween(a, a)).toBe(0)
      }),
    )
  })
  it('finds what is held and what slides by a half step', () => {
    const overlay = (text: string) => {
      const read = readOverlay(text)
      if (!read.ok) throw new Error(text)
      return read.value
    }
    const seam = seamBetween(overlay('C# minor pentatonic'), overlay('D minor pentatonic'))
    expect([seam.motion, seam.common, seam.halfSteps.length]).toEqual([1, [], 8])
    expect(seamBetween(overlay('C'), overlay('Am'))).toMatchObject({ common: [0, 4], motion: 2 / 3 })
  })
})
