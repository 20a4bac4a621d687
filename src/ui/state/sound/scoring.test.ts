import { describe, expect, it } from 'vitest'
import { midi, ticks } from '../../../core/index.ts'
import { addressAt, keptChart as kept } from '../testing/kept.ts'
import { concertTune, startAt } from '../tune/concert.ts'
import { openChartOf } from '../tune/open-chart.ts'
import { scoreFor, spanOf } from './scoring.ts'

const PLACE = addressAt('/desk?chart=c1')

describe('what is played', () => {
  const text = 'pickup = 1\nmetre = 3/4\n| G7 | Cmaj7 | Am7 | Dm7 | G7 |'
  const tune = concertTune(PLACE, kept(text))
  if (!tune) throw new Error('no tune')
  const note = (at: number, length: number) => ({ at: ticks(at), for: ticks(length), pitch: midi(64) })
  const line = [note(960 + 2880 + 100, 400), note(960 + 2880 * 2, 960)]

  it.each([
    ['the bars asked for', { from: 2, to: 3 }, { kind: 'laid' as const }, [960 + 2880, 960 + 2880 * 3]],
    ['else the bars of the line', null, { kind: 'line' as const, id: 'x' }, [960 + 2880, 960 + 2880 * 3]],
    ['else the whole form', null, { kind: 'laid' as const }, [0, 960 + 2880 * 4]],
    ['bars that are not there count for nothing', { from: 40, to: 44 }, { kind: 'laid' as const }, [0, 960 + 2880 * 4]],
  ])('%s', (_, loop, source, [from, to]) => expect(spanOf(tune, loop, line, source)).toEqual({ from, to }))

  it('begins at the bar in view, or with the span where that bar is outside it', () => {
    const span = { from: 960 + 2880, to: 960 + 2880 * 3 }
    expect(startAt(tune, span, 3)).toBe(960 + 2880 * 2)
    expect(startAt(tune, span, 1)).toBe(span.from)
  })

  it('a line in its second chorus is played over the second chorus', () => {
    const form = tune.timeline.length
    expect(spanOf(tune, null, [note(form + 960, 480)], { kind: 'line', id: 'x' })).toEqual({
      from: form + 960,
      to: form + 3840,
    })
  })

  it('runs through what is laid and rests over what is not; written pitch sounds in concert', () => {
    const place = { ...PLACE, bar: 2, over: 'C' }
    for (const settings of [{}, { instrument: 'bb' }]) {
      const all = kept('| Dm7 | Cmaj7 | Fmaj7 |', settings)
      const own = concertTune(place, all)
      if (!own) throw new Error('no tune')
      const sung = scoreFor({ kind: 'laid' }, own, place, openChartOf(place, all)).notes.filter(
        (n) => n.part === 'line',
      )
      expect(sung).toHaveLength(8)
      expect(sung.every((n) => [0, 4, 7].includes(n.pitch % 12))).toBe(true)
      expect(sung[0]?.at).toBe(3840)
    }
  })
})
