import { describe, expect, it } from 'vitest'
import {
  analyseChart,
  DEFAULT_WEIGHTS,
  heardLine,
  midi,
  placeOf,
  readChart,
  readChord,
  readOver,
  readOverlay,
  readTune,
  ticks,
} from '../../core/index.ts'
import { rampStep } from './ramp.ts'
import { homeOf, layoutSlope, litAt, NARROW, type SlopeSizes, WIDE, widthOf } from './slope-layout.ts'
import { layoutStrip, STRIP_MARGIN, type StripSpot } from './strip-layout.ts'

const reading = (overlay: string, chord: string, next: string | null) => {
  const [o, c, n] = [readOverlay(overlay), readChord(chord), next === null ? null : readChord(next)]
  if (!o.ok || !c.ok || (n && !n.ok)) throw new Error(overlay)
  return readOver(o.value, placeOf(c.value, n?.value ?? null))
}

describe('the slope view', () => {
  const SIZES: readonly (readonly [string, SlopeSizes])[] = [
    ['wide', WIDE],
    ['narrow', NARROW],
  ]
  it.each(SIZES)('keeps all twelve tabs and every sign apart (%s)', (_, sizes) => {
    for (const [chord, next] of [
      ['B7', 'Emaj7'],
      ['F#m7', 'B7'],
      ['Cmaj7', 'Am7'],
      ['Gdim7', 'F#m7'],
    ] as const) {
      const { tabs, marks } = layoutSlope(reading('E chromatic', chord, next), sizes)
      expect(tabs).toHaveLength(12)
      const boxes = tabs.map((t) => ({ x: t.x, y: t.y, w: sizes.tab.w, h: sizes.tab.h }))
      const signs = marks.map((m) => ({ x: m.x - sizes.mark.w / 2, y: m.y - sizes.mark.h / 2, ...sizes.mark }))
      const all = [...boxes, ...signs]
      const touching = all.flatMap((a, i) =>
        all.slice(i + 1).filter((b) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h),
      )
      expect(touching.length, `${chord} to ${next}`).toBeLessThanOrEqual(1)
    }
  })
  it('stands a chord tone on the home line and a fade of 95 near the top', () => {
    const { tabs } = layoutSlope(reading('G dorian', 'B7', 'Emaj7'))
    const at = (name: string) => tabs.find((t) => t.note.note.name === name)
    expect((at('A')?.y ?? 0) + WIDE.tab.h).toBe(homeOf(WIDE))
    expect(at('Bb')?.y).toBeCloseTo(homeOf(WIDE) - WIDE.tab.h - 0.95 * WIDE.plot)
  })
  it('draws a path over the octave whole: inside the picture, to a tone that is drawn', () => {
    for (const overlay of ['B half-whole', 'C locrian', 'Bb chromatic'])
      for (const next of ['Emaj7', 'A#m7b5', 'C7', 'Bm7']) {
        const { slides, targets } = layoutSlope(reading(overlay, 'B7', next))
        for (const { to, best } of slides.filter((s) => s.best)) {
          expect(best && to.x).toBeGreaterThan(0)
          expect(to.x).toBeLessThan(widthOf(WIDE))
          expect(targets.some((t) => Math.abs(t.x + t.w / 2 - to.x) < 0.01)).toBe(true)
        }
      }
  })
  it('draws no way home without a next chord, and a stub where there is none', () => {
    const none = layoutSlope(reading('B+', 'A7', null))
    expect([none.slides.length, none.targets.length, none.stubs.length]).toEqual([0, 0, 0])
    expect(layoutSlope(reading('E G', 'G7', 'C7no3')).stubs).toHaveLength(1)
  })
})

describe('a note that is played in', () => {
  const tune = readTune('| B7 | Emaj7 |')
  if (!tune.ok) throw new Error('chart')
  const { timeline } = tune.value
  const played = (pitch: number) => {
    const [note] = heardLine([{ at: ticks(0), for: ticks(1), pitch: midi(pitch) }], timeline, DEFAULT_WEIGHTS)
    if (!note) throw new Error('no note')
    return note
  }
  // Written a whole step up, as a tenor reads it.
  it.each([
    ['B7', 'Emaj7', 'G dorian'],
    ['C#7', 'F#maj7', 'A dorian'],
  ])('lights over %s on its own tab, or in the column of its degree', (chord, next, overlay) => {
    const read = reading(overlay, chord, next)
    const layout = layoutSlope(read)
    for (let pitch = 59; pitch < 71; pitch++) {
      const note = played(pitch)
      const lit = litAt(read, layout, WIDE, note)
      const own = layout.tabs.find((t) => t.note.degree === note.degree)
      const column = layout.columns.find((c) => c.degree === note.degree)
      expect(lit?.x, note.degree ?? '').toBeCloseTo(own?.x ?? (column?.x ?? 0) - WIDE.tab.w / 2)
      expect((lit?.y ?? 0) + WIDE.tab.h).toBeCloseTo(homeOf(WIDE) - (note.fade / 100) * WIDE.plot)
    }
  })
})

describe('the strip', () => {
  it('makes each chord as wide as its beats, without a gap', () => {
    const chart = readChart('metre = 5/4\n| Dm7 G7 | Cmaj7 |')
    if (!chart.ok) throw new Error('chart')
    const spots = analyseChart(chart.value, true).spots.map(
      (s): StripSpot => ({ ...s, beat: 1, reading: null, by: 'home' }),
    )
    const { boxes, width } = layoutStrip(spots, (s) => s.spot.length / 960)
    expect(boxes.map((b) => b.w / (boxes[0]?.w ?? 1))).toEqual([1, 1, 2])
    expect(boxes[1]?.x).toBe((boxes[0]?.x ?? 0) + (boxes[0]?.w ?? 0))
    expect(width).toBe((boxes[2]?.x ?? 0) + (boxes[2]?.w ?? 0) + STRIP_MARGIN)
  })
})

it('the ramp has seven steps, in order', () => {
  const steps = Array.from({ length: 101 }, (_, fade) => rampStep(fade))
  expect(new Set(steps).size).toBe(7)
  expect(steps).toEqual([...steps].sort((a, b) => a - b))
})
