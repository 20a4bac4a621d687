import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readOverlay } from '../material/read-overlay.ts'
import { rotate, setOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { directionBetween, motionBetween, seamBetween } from './seam.ts'

const apart = (a: number, b: number): number => Math.min(Math.abs(a - b), 12 - Math.abs(a - b))

const signed = (a: number, b: number): number => {
  const up = (b - a + 12) % 12
  return up === 6 ? 0 : up < 6 ? up : up - 12
}

/** Every pairing in which each note takes part, tried one by one: the least cost, and how far the cheapest ones rise. */
const bruteForce = (a: readonly number[], b: readonly number[]) => {
  const edges = a.flatMap((x) => b.map((y) => [x, y] as const))
  let best = Number.POSITIVE_INFINITY
  let rises: number[] = []
  for (let chosen = 1; chosen < 2 ** edges.length; chosen++) {
    const taken = edges.filter((_, i) => (chosen >> i) & 1)
    if (!a.every((x) => taken.some((e) => e[0] === x)) || !b.every((y) => taken.some((e) => e[1] === y))) continue
    const cost = taken.reduce((sum, [x, y]) => sum + apart(x, y), 0)
    if (cost > best) continue
    if (cost < best) rises = []
    best = cost
    rises.push(taken.reduce((sum, [x, y]) => sum + signed(x, y), 0))
  }
  return { motion: best / Math.max(a.length, b.length), rises }
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
        expect(motionBetween(setOf(a), setOf(b))).toBeCloseTo(bruteForce(a, b).motion, 10)
      }),
      { numRuns: 300, seed: 5 },
    )
  })
  it('climbs where every cheapest pairing rises, falls where each falls', () => {
    fc.assert(
      fc.property(small(4), small(3), (a, b) => {
        const { rises } = bruteForce(a, b)
        const way = Math.min(...rises) > 0 ? 1 : Math.max(...rises) < 0 ? -1 : 0
        expect(directionBetween(setOf(a), setOf(b))).toBe(way)
      }),
      { numRuns: 300, seed: 6 },
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
