import { describe, expect, it } from 'vitest'
import { midi } from '../core/index.ts'
import type { Score } from './score.ts'
import { advance, emptySequence, oneAfterAnother, roundAtTime, type Sequence, type Strike } from './strikes.ts'

/** Two bars of four: a note on each beat, `pitch` tells the round. */
const score = (pitch: number, tempo: number): Score => ({
  notes: Array.from({ length: 8 }, (_, i) => ({
    ...{ part: 'bass' as const, at: 3840 + i * 960, for: 480, pitch: midi(pitch), loudness: 0.5 },
  })),
  span: { from: 3840, to: 3840 + 2 * 3840 },
  beat: 960,
  beatsInBar: 4,
  tempo,
})

/** Walks a clock in uneven steps, as a busy page does; tells what was struck, and when each round was asked for. */
const walk = (seconds: number, next: (n: number) => Score | null) => {
  let sequence: Sequence = emptySequence(10)
  const struck: (Strike & { readonly asked: number })[] = []
  const askedAt: number[] = []
  let most = 0
  for (let at = 10, i = 0; at < 10 + seconds; at += 0.03 + (i++ % 5) * 0.01) {
    const done = advance(sequence, { now: at, strike: at + 0.2, lay: at + 0.4 }, (n) => {
      askedAt[n] = at
      return next(n)
    })
    sequence = done.sequence
    struck.push(...done.strikes.map((s) => ({ ...s, asked: at })))
    most = Math.max(most, sequence.waiting.length + sequence.rounds.length)
  }
  return { struck, askedAt, sequence, most }
}

describe('voices of one note at a time', () => {
  it('begin each note after the one before, chords and other voices as they are', () => {
    const inOrder = oneAfterAnother()
    expect([1, 2, 2, 1.5, 3].map((at) => inOrder('line', at))).toEqual(
      [1, 2, 2.001, 2.002, 3].map((at) => expect.closeTo(at, 9)),
    )
    expect([2, 2].map((at) => inOrder('chords', at))).toEqual([2, 2])
    expect(inOrder('hat', 2)).toBe(2)
  })
  it('that are late are struck soon, and still after one another', () => {
    const inOrder = oneAfterAnother(() => 10)
    const struck = [9.2, 9.6, 9.9, 10, 10.2].map((at) => inOrder('ride', at))
    expect(struck.every((at, i) => at >= 10 && at > (struck[i - 1] ?? 0))).toBe(true)
    expect(struck[4]).toBe(10.2)
    expect(inOrder('chords', 9)).toBeGreaterThan(10)
  })
})

describe('rounds one after another', () => {
  it('begin exactly where the one before ends, each at its own tempo', () => {
    const tempos = [60, 64, 64, 56, 120]
    const { struck, askedAt } = walk(40, (n) => score(40 + n, tempos[n % 5] ?? 60))
    let begins = 10
    for (const [n, tempo] of tempos.entries()) {
      const notes = struck.filter((s) => s.pitch === 40 + n)
      expect(notes.map((s) => s.at.toFixed(6))).toEqual(
        Array.from({ length: 8 }, (_, i) => (begins + (i * 60) / tempo).toFixed(6)),
      )
      expect(notes.every((s) => s.asked <= s.at)).toBe(true)
      // Asked for late, so that what was graded in the round before still counts.
      expect(begins - (askedAt[n] ?? 0)).toBeLessThanOrEqual(0.41)
      begins += (8 * 60) / tempo
    }
  })
  it('leave out what is late after the page was held up, and go on in time', () => {
    const next = (n: number) => (n < 2 ? score(40 + n, 60) : null)
    const laid = advance(emptySequence(10), { now: 10, strike: 10.2, lay: 10.4 }, next)
    const late = advance(laid.sequence, { now: 13.5, strike: 13.7, lay: 13.9 }, next)
    expect(late.strikes).toEqual([])
    const after = advance(late.sequence, { now: 13.9, strike: 14.1, lay: 14.3 }, next)
    expect(after.strikes.map((s) => s.at)).toEqual([14])
  })
  it('end where there are no more, and say where the music is', () => {
    const { struck, sequence } = walk(30, (n) => (n < 2 ? score(40 + n, 60) : null))
    expect(struck.length).toBe(16)
    expect(roundAtTime(sequence, 9)).toBeNull()
    expect(roundAtTime(sequence, 14)).toEqual({ number: 0, tick: 3840 + 4 * 960 })
    expect(roundAtTime(sequence, 19)).toEqual({ number: 1, tick: 3840 + 960 })
    expect(roundAtTime(sequence, 26)).toBeNull()
  })
  it('hold no more after half an hour than after a minute', () => {
    const next = (n: number) => score(n % 100, 120)
    expect(walk(1800, next).most).toBeLessThanOrEqual(walk(60, next).most)
  })
})
