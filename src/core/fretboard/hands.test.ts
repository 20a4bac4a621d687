import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { midi } from '../pitch/units.ts'
import { ALL_OF_IT, fingeredPlaces, fingeringCost, fingeringOf, type Place, placesOf } from './fingering.ts'
import { type Finger, type Hand, keyCost, keysFingering, moveCost } from './keys-fingering.ts'
import { pickingOf, repeatingShape } from './picking.ts'
import { readTuning, TUNINGS } from './tuning.ts'

const guitar = (() => {
  const read = readTuning(TUNINGS[0].strings)
  if (!read.ok) throw new Error('no tuning')
  return read.value
})()

describe('fingers on keys', () => {
  it.each([
    ['C major', [60, 62, 64, 65, 67, 69, 71, 72], 'right', [1, 2, 3, 1, 2, 3, 4, 5]],
    ['C major, falling', [72, 71, 69, 67, 65, 64, 62, 60], 'left', [1, 2, 3, 1, 2, 3, 4, 5]],
    ['five notes', [60, 62, 64, 65, 67], 'right', [1, 2, 3, 4, 5]],
    ['E major', [64, 66, 68, 69, 71, 73, 75, 76], 'right', [1, 2, 3, 1, 2, 3, 4, 5]],
  ] as const)('%s', (_, pitches, hand, fingers) => {
    expect(keysFingering(pitches, hand)).toEqual(fingers)
  })
  it('are the cheapest there are: all of them tried, on short lines', () => {
    const costOf = (pitches: readonly number[], fingers: readonly Finger[], hand: Hand): number =>
      pitches.reduce((sum, p, i) => {
        const [f, before] = [fingers[i] ?? 1, pitches[i - 1]]
        return sum + keyCost(p, f) + (before === undefined ? 0 : moveCost(before, fingers[i - 1] ?? 1, p, f, hand))
      }, 0)
    const every = (count: number): readonly (readonly Finger[])[] =>
      count === 0 ? [[]] : every(count - 1).flatMap((rest) => ([1, 2, 3, 4, 5] as const).map((f) => [...rest, f]))
    const lines = fc.array(fc.integer({ min: 55, max: 76 }), { minLength: 1, maxLength: 5 })
    fc.assert(
      fc.property(lines, fc.constantFrom('right', 'left'), (pitches, hand) => {
        const least = Math.min(...every(pitches.length).map((fingers) => costOf(pitches, fingers, hand)))
        expect(costOf(pitches, keysFingering(pitches, hand), hand)).toBeCloseTo(least, 6)
      }),
      { numRuns: 40 },
    )
  })
})

describe('strings', () => {
  it('stay within the window of frets that is asked for, without open strings where none are wanted', () => {
    const pitches = fc.array(fc.integer({ min: 45, max: 72 }), { minLength: 1, maxLength: 16 })
    fc.assert(
      fc.property(pitches, fc.integer({ min: 1, max: 9 }), fc.boolean(), (line, from, open) => {
        const use = { window: { from, to: from + 4 }, open }
        for (const [i, place] of fingeringOf(line.map(midi), guitar, use).entries()) {
          if (!place) continue
          expect((guitar[place.string] ?? 0) + place.fret).toBe(line[i])
          if (place.fret === 0) expect(open).toBe(true)
          else expect(place.fret >= from && place.fret <= from + 4).toBe(true)
        }
      }),
    )
  })
  it('have the cheapest fingering there is: all of them tried, on short lines', () => {
    const ukulele = readTuning('G3 C4 E4 A4')
    if (!ukulele.ok) throw new Error('no tuning')
    const every = (line: readonly number[]): readonly (readonly Place[])[] => {
      const [first, ...rest] = line
      if (first === undefined) return [[]]
      const after = every(rest)
      const here = placesOf(first, ukulele.value, { ...ALL_OF_IT, open: false })
      return here.flatMap((p) => after.map((others) => [p, ...others]))
    }
    const lines = fc.array(fc.integer({ min: 60, max: 74 }), { minLength: 1, maxLength: 4 })
    fc.assert(
      fc.property(lines, (line) => {
        const all = every(line)
        const found = fingeredPlaces(line.map(midi), ukulele.value, { ...ALL_OF_IT, open: false })
        if (all.length === 0 || found.some((p) => p === null)) return
        const least = all.reduce((cost, places) => Math.min(cost, fingeringCost(places)), Number.POSITIVE_INFINITY)
        expect(fingeringCost(found as readonly Place[])).toBeCloseTo(least, 6)
      }),
      { numRuns: 30 },
    )
  })
  it('are never asked for more than the hand reaches, in a thousand random lines', () => {
    const lines = fc.array(fc.integer({ min: 40, max: 79 }), { minLength: 2, maxLength: 16 })
    fc.assert(
      fc.property(lines, (line) => {
        for (const place of fingeredPlaces(line.map(midi), guitar)) {
          expect(place).not.toBeNull()
          if (!place || place.fret === 0) continue
          expect(place.fret - place.hand).toBeGreaterThanOrEqual(0)
          expect(place.fret - place.hand).toBeLessThanOrEqual(4)
        }
      }),
      { numRuns: 1000 },
    )
  })
  it('are picked by turns, down where a phrase begins on a beat, and end downwards where they can', () => {
    const notes = (from: number, count: number) =>
      Array.from({ length: count }, (_, i) => ({ at: from + i * 480, for: 480 }))
    expect(pickingOf(notes(0, 3), 960)).toEqual({ strokes: ['down', 'up', 'down'], endsUp: [] })
    expect(pickingOf(notes(0, 4), 960).endsUp).toEqual([3])
    expect(pickingOf(notes(480, 2), 960)).toEqual({ strokes: ['up', 'down'], endsUp: [] })
    expect(pickingOf([...notes(480, 2), ...notes(3840, 1)], 960).strokes).toEqual(['up', 'down', 'down'])
  })
  it('tell a shape that comes again', () => {
    const shape = [0, 1].flatMap((k) => [0, 1, 3, 4].map((fret, i) => ({ string: 1 + (i >> 1), fret: fret + 3 * k })))
    expect(repeatingShape(shape)).toEqual({ notes: 4, frets: 3 })
    expect(repeatingShape([{ string: 0, fret: 1 }, null, { string: 0, fret: 3 }])).toBeNull()
  })
})
