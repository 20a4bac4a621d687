import { describe, expect, it } from 'vitest'
import { readTune } from '../tune.ts'
import { spanOfBars } from './bars.ts'
import { loopedFrom, loopedTimeline } from './looped.ts'
import { soundingAfter, soundingAt } from './timeline.ts'

const tune = readTune('| Dm7 | G7 | Cmaj7 A7 | N.C. | Dm7 |')
if (!tune.ok) throw new Error('does not read')
const { chart, timeline } = tune.value
const span = spanOfBars(chart, 2, 4) ?? { from: 0, to: 0 }
const looped = loopedTimeline(timeline, span)

describe('bars that are looped', () => {
  it('begin at 0 and come again, each chord with its bar and what it does in the whole chart', () => {
    const at = (tick: number) => soundingAt(looped, tick)?.spot.spot
    expect([0, 3840, 5760, 7680, 11_520, 11_520 + 3840].map((t) => [at(t)?.bar, at(t)?.chord.symbol])).toEqual([
      [2, 'G7'],
      [3, 'Cmaj7'],
      [3, 'A7'],
      [4, 'N.C.'],
      [2, 'G7'],
      [3, 'Cmaj7'],
    ])
    expect(soundingAt(looped, 0)?.place?.home).toEqual(soundingAt(timeline, 3840)?.place?.home)
  })

  it('go on from their last chord into their first', () => {
    const last = soundingAt(looped, 5760)
    expect(last && soundingAfter(looped, last)?.spot.spot.chord.symbol).toBe('G7')
    expect(last && soundingAfter(looped, last)?.from).toBe(11_520)
  })

  it('take what was laid before and lasts into them', () => {
    const laid = [0, 5760, 11_520, 99_999].map((from, i) => ({ from, name: 'abcd'.charAt(i) }))
    expect(loopedFrom(laid, span)).toEqual([
      { from: 0, name: 'a' },
      { from: 1920, name: 'b' },
      { from: 7680, name: 'c' },
    ])
    expect(loopedFrom(laid.slice(2, 3), span)).toEqual([{ from: 7680, name: 'c' }])
  })
})
