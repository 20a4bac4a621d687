// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest'
import type { TakeRow } from '../kept/row-types.ts'
import { barsRound, takeScore } from './listening-back.ts'

const note = (at: number, pitch: number) => ({ at, for: 400, pitch, velocity: 0.7 })
const take = (notes: TakeRow['notes'], more: Partial<TakeRow> = {}): TakeRow => ({
  ...{ id: 't', version: 1, createdAt: '', updatedAt: '', name: 'T', chartId: null, itemId: null, key: null },
  ...{ text: '| Dm7 | % | % | % |', overrides: null, bars: null, plan: null, tempo: 120, offset: 0, source: 'midi' },
  ...{ notes, soundFrom: 0, sound: null, disputed: null, open: false, tags: [] },
  ...more,
})
const PLAIN = { band: false, sound: false, rate: 1 }
const sung = (row: TakeRow, from: number, to: number) =>
  takeScore(row, { from, to }, PLAIN)?.notes.map((n) => [n.at, n.pitch])

describe('a stretch of a take that is heard', () => {
  const played = [note(-40, 60), note(960, 62), note(3800, 64), note(4300, 65), note(7700, 67)]

  it('has its own notes and none of before it; one that came early for its first beat begins with it', () => {
    expect(sung(take(played), 0, 3840)).toEqual([
      [0, 60],
      [960, 62],
      [3800, 64],
    ])
    expect(sung(take(played), 3840, 7680)).toEqual([
      [3840, 64],
      [4300, 65],
    ])
  })

  it('sounds one note at a time: of what is struck together the highest', () => {
    expect(sung(take([note(0, 60), note(0, 67), note(8, 64), note(960, 62)]), 0, 3840)).toEqual([
      [0, 67],
      [960, 62],
    ])
  })

  it('is in time again where the instrument came late, and goes slower with all of it', () => {
    // 100 ms at 120 are 192 ticks.
    const row = take([note(192, 60), note(1152, 62)], { offset: 100 })
    expect(sung(row, 0, 3840)).toEqual([
      [0, 60],
      [960, 62],
    ])
    expect(takeScore(row, { from: 0, to: 3840 }, { ...PLAIN, rate: 0.5 })?.tempo).toBe(60)
  })

  it('is whole bars', () => {
    expect(barsRound(take(played), { from: 4000, to: 4500 })).toEqual({ from: 3840, to: 7680 })
  })
})
