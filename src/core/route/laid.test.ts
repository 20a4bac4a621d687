import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { barsChanged, handLaid, laidAt, layChain, layStep, markByHand } from './laid.ts'
import type { KeptStep } from './report.ts'

const chain: readonly KeptStep[] = [
  { bar: 1, beat: 1, beats: 4, chord: 'Em7b5', overlay: 'Gm6 arpeggio' },
  { bar: 2, beat: 1, beats: 4, chord: 'A7', overlay: 'Bb & Gb' },
  { bar: 3, beat: 1, beats: 2, chord: 'Dm6', overlay: 'Am' },
]
const at = (bar: number, beat: number, beats: number, chord = 'A7') => ({ bar, beat, beats, chord })

describe('what is laid over a chart', () => {
  it('is laid chord by chord: each place has its own, and the rest of its bar none', () => {
    const steps = layStep([], at(2, 1, 2, 'Bm7'), { overlay: 'F# & G' })
    expect(laidAt(steps, { bar: 2, beat: 1 })).toBe('F# & G')
    expect(laidAt(steps, { bar: 2, beat: 2.5 })).toBe('F# & G')
    expect(laidAt(steps, { bar: 2, beat: 3 })).toBeNull()
    expect(laidAt(steps, { bar: 3, beat: 1 })).toBeNull()
  })
  it('gives way where something is laid anew, also within a longer step, and may be nothing', () => {
    const split = layStep(chain, at(2, 3, 2), { overlay: 'Eb' })
    expect([1, 2.5, 3, 4.5].map((beat) => laidAt(split, { bar: 2, beat }))).toEqual(['Bb & Gb', 'Bb & Gb', 'Eb', 'Eb'])
    const empty = layStep(split, at(2, 3, 2), { overlay: null })
    expect([1, 3].map((beat) => laidAt(empty, { bar: 2, beat }))).toEqual(['Bb & Gb', null])
    expect(layStep(chain, at(3, 1, 2), { overlay: null })).toEqual(chain.slice(0, 2))
  })
  it('a step of a script that says neither beat nor length goes through its bar', () => {
    expect(laidAt([{ bar: 4, overlay: 'D' }], { bar: 4, beat: 3.5 })).toBe('D')
  })
  it('a chain takes its bars and no others; what was laid by hand is still told', () => {
    const hand = layStep(layStep([], at(2, 1, 4), { overlay: 'Bb & Gb' }), at(9, 1, 4), { overlay: 'C' })
    const taken = layChain(layStep(hand, at(1, 2, 1), { overlay: 'D' }), chain)
    expect(taken.map((s) => [s.bar, s.overlay, s.byHand ?? false])).toEqual([
      [1, 'Gm6 arpeggio', false],
      [2, 'Bb & Gb', true],
      [3, 'Am', false],
      [9, 'C', true],
    ])
    expect(handLaid(taken).map((l) => l.bar)).toEqual([2, 9])
    expect(handLaid(markByHand(taken, { bar: 2, beat: 1 }, false)).map((l) => l.bar)).toEqual([9])
  })
  it('tells in which bars two routes differ', () => {
    expect(barsChanged(chain, chain)).toBeNull()
    expect(barsChanged([], chain)).toEqual({ from: 1, to: 3 })
    expect(barsChanged(chain, layStep(chain, at(3, 1, 2), { overlay: 'E' }))).toEqual({ from: 3, to: 3 })
  })
  it('whatever is laid in whatever order, each place has what was laid over it last', () => {
    const place = fc.record({ bar: fc.integer({ min: 1, max: 3 }), beat: fc.constantFrom(1, 2, 3, 4) })
    const laid = fc.tuple(place, fc.option(fc.constantFrom('C', 'Dm', 'E & F'), { nil: null }))
    fc.assert(
      fc.property(fc.array(laid, { maxLength: 25 }), (all) => {
        let steps = chain
        const last = new Map<string, string | null>()
        for (const [{ bar, beat }, overlay] of all) {
          steps = layStep(steps, at(bar, beat, 1), { overlay })
          last.set(`${bar} ${beat}`, overlay)
        }
        for (const [key, overlay] of last) {
          const [bar = 0, beat = 0] = key.split(' ').map(Number)
          expect(laidAt(steps, { bar, beat })).toBe(overlay)
        }
      }),
    )
  })
})
