import fc from 'fast-check'
import { expect, test } from 'vitest'
import { tupletsIn, writtenBar } from './notated.ts'

const BAR = { from: 0, to: 3840 }
const line = (...all: readonly (readonly [at: number, length: number])[]) =>
  all.map(([at, length]) => ({ at, for: length }))
const signs = (notes: ReturnType<typeof line>, bar = BAR, beat = 960) =>
  writtenBar(notes, bar, beat).map(
    (s) => `${s.note ?? 'r'}:${s.value}${s.dots ? '.' : ''}${s.tuplet ?? ''}${s.tied ? '~' : ''}`,
  )

test.each([
  ['a bar of rest', line(), ['r:whole']],
  ['a whole note', line([0, 3840]), ['0:whole']],
  ['two halves', line([0, 1920], [1920, 1920]), ['0:half', '1:half']],
  ['a dotted quarter and an eighth', line([0, 1440], [1440, 480], [1920, 1920]), ['0:quarter.', '1:eighth', '2:half']],
  [
    'an off-beat quarter',
    line([0, 480], [480, 960], [1440, 480], [1920, 1920]),
    ['0:eighth', '1:quarter', '2:eighth', '3:half'],
  ],
  [
    'a quarter over the middle is tied',
    line([0, 1440], [1440, 960], [2400, 1440]),
    ['0:quarter.', '1:eighth~', '1:eighth', '2:eighth~', '2:quarter'],
  ],
  [
    'eighth triplets',
    line([0, 320], [320, 320], [640, 320], [960, 2880]),
    ['0:eighth3', '1:eighth3', '2:eighth3', '3:half.'],
  ],
  [
    'a triplet of a quarter and an eighth',
    line([0, 640], [640, 320], [960, 960], [1920, 1920]),
    ['0:quarter3', '1:eighth3', '2:quarter', '3:half'],
  ],
  ['a note over the bar line', line([2880, 1920]), ['r:half.', '0:quarter~']],
  ['sixteenths and a dotted eighth', line([0, 720], [720, 240], [960, 2880]), ['0:eighth.', '1:16th', '2:half.']],
])('%s', (_, notes, expected) => expect(signs(notes)).toEqual(expected))

test('a note that comes over the bar line goes on in the next bar', () => {
  expect(signs(line([2880, 1920]), { from: 3840, to: 7680 })).toEqual(['0:quarter', 'r:half.'])
})

test('in seven a bar is filled', () =>
  expect(signs(line([0, 960 * 7]), { from: 0, to: 6720 })).toEqual(['0:whole~', '0:half.']))

test('triplets go together in threes', () => {
  const notes = line([0, 320], [320, 320], [640, 320], [960, 640], [1600, 320], [1920, 1920])
  expect(tupletsIn(writtenBar(notes, BAR, 960)).map((t) => t.places)).toEqual([
    [0, 1, 2],
    [3, 4],
  ])
})

test('signs fill every bar exactly, in order, whatever is played', () => {
  const played = fc.array(fc.tuple(fc.integer({ min: 0, max: 95 }), fc.integer({ min: 1, max: 60 })), { maxLength: 24 })
  fc.assert(
    fc.property(played, fc.constantFrom(3, 4, 5, 7), (raw, beats) => {
      const starts = new Map(raw.map(([at, length]) => [at * 80, length * 80]))
      const notes = [...starts].sort((a, b) => a[0] - b[0]).map(([at, length]) => ({ at, for: length }))
      for (let bar = 0; bar < 3; bar++) {
        const span = { from: bar * beats * 960, to: (bar + 1) * beats * 960 }
        let at = span.from
        for (const s of writtenBar(notes, span, 960)) {
          expect(s.at).toBe(at)
          expect(s.for).toBeGreaterThan(0)
          at += s.for
        }
        expect(at).toBe(span.to)
      }
    }),
  )
})
