import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { setOf } from '../pitch/pcset.ts'
import { approachTo } from './approach.ts'
import { FIGURES, ORDERS_OF_FOUR, ORDERS_OF_THREE, offsetsIn, printFigure, readFigure } from './figures.ts'
import { meetsAfter, momentsOf, readRest, startTicks } from './rhythm.ts'

describe('figures', () => {
  it('are read as they are printed', () => {
    const place = fc.integer({ min: -9, max: 12 }).filter((n) => n !== 0)
    const step = fc.integer({ min: -7, max: 7 }).filter((n) => n !== 0)
    fc.assert(
      fc.property(fc.array(place, { minLength: 1, maxLength: 16 }), step, (places, by) => {
        expect(readFigure(printFigure({ places, step: by }))).toEqual({ ok: true, value: { places, step: by } })
      }),
    )
  })
  it('of the table all read, each under a name of its own', () => {
    expect(FIGURES.length).toBeGreaterThan(10)
    for (const [, words] of FIGURES) expect(readFigure(words).ok, words).toBe(true)
    expect(new Set(FIGURES.map(([name]) => name)).size).toBe(FIGURES.length)
    expect([new Set(ORDERS_OF_THREE).size, new Set(ORDERS_OF_FOUR).size]).toEqual([6, 24])
  })
  it.each([
    ['', 0, ''],
    ['1 3 x', 4, 'x'],
    ['1 0 3', 2, '0'],
    ['1 99', 2, '99'],
    ['step 1', 0, 'step'],
    ['1 3 step', 8, ''],
    ['1 3 step up', 9, 'up'],
    ['1 3 step 1 2', 11, '2'],
  ])('“%s” is wrong at %i', (text, at, found) => {
    expect(readFigure(text)).toMatchObject({ ok: false, error: { at, found } })
  })
  it.each([
    ['1 3 5', 7, [0, 2, 4]],
    ['1 3 5', 3, [0, 1, 2]],
    ['1 3 5 8', 3, [0, 1, 2, 3]],
    ['1 2 3', 3, [0, 1, 2]],
    ['1 3 5 7', 4, [0, 1, 2, 3]],
    ['1 3 5 7', 5, [0, 2, 4, 6]],
    ['1 8', 7, [0, 7]],
    ['1 6', 5, [0, 5]],
    ['1 -1 2', 7, [0, -1, 1]],
  ])('“%s” in %i notes', (words, size, offsets) => {
    const read = readFigure(words)
    expect(read.ok && offsetsIn(read.value, size)).toEqual(offsets)
  })
})

describe('rhythm', () => {
  it.each([
    [5, '1/8t', 5],
    [3, '1/8', 3],
    [5, '1/16', 5],
    [4, '1/8', 2],
    [7, '1/8', 7],
    [3, '1/16', 3],
    [4, '1/8t', 4],
    [2, '1/4.', 3],
  ] as const)('groups of %i in %s meet the beat again after %i beats', (group, value, beats) => {
    expect(meetsAfter(group, value, 960)).toBe(beats)
  })
  it('begins where it is told, tuplets at one of their own places', () => {
    expect(startTicks({ value: '1/8', start: 1.5, rest: null }, 960)).toBe(480)
    expect(startTicks({ value: '1/8', start: 0.5, rest: null }, 960)).toBe(-480)
    expect(startTicks({ value: '1/8t', start: 1.5, rest: null }, 960) % 320).toBe(0)
    expect(startTicks({ value: '1/16', start: 2.25, rest: null }, 480)).toBe(600)
  })
  it('leaves out what rests', () => {
    expect(readRest('play 5 rest 1')).toEqual({ play: 5, rest: 1 })
    expect([readRest('play 0 rest 1'), readRest('5 1'), readRest('')]).toEqual([null, null, null])
    const moments = momentsOf({ value: '1/8', start: 1, rest: { play: 2, rest: 1 } }, 0, 3840)
    expect(moments).toEqual([0, 480, 1440, 1920, 2880, 3360])
  })
})

it.each([
  ['half below', 67, [66]],
  ['half above', 67, [68]],
  ['double below', 67, [65, 66]],
  ['double above', 67, [69, 68]],
  ['scale above half below', 67, [69, 66]],
  ['scale above half below', 64, [65, 63]],
  ['half below scale above', 64, [63, 65]],
  ['enclosure of four', 60, [62, 61, 59]],
] as const)('%s leads to %i over C', (name, target, led) => {
  const major = setOf([0, 2, 4, 5, 7, 9, 11])
  expect(approachTo(name, target, major, setOf([0, 4, 7]))).toEqual(led)
})
