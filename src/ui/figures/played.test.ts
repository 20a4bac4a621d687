import { describe, expect, it } from 'vitest'
import { fretsIn, POSITIONS, readOverlay, readTuning, TUNINGS, WHOLE_NECK } from '../../core/index.ts'
import { layoutFretboard } from './fretboard-layout.ts'
import { layoutKeyboard } from './keyboard-layout.ts'
import { tuningFrom } from './neck.ts'
import { CLEF_LOW, scaleUp } from './register.ts'
import { heightOf, sizesFor, widthOf } from './slope-layout.ts'
import { stepTo } from './walk.ts'

describe('the keyboard picture', () => {
  it('has white keys side by side, black keys between the right ones, and its pitches in order', () => {
    const keys = layoutKeyboard(48, 2, 600, 200)
    expect(keys).toHaveLength(25)
    const white = keys.filter((k) => !k.black)
    expect(white.map((k) => k.pc)).toEqual([0, 2, 4, 5, 7, 9, 11, 0, 2, 4, 5, 7, 9, 11, 0])
    for (const [i, k] of white.entries()) expect(k.x).toBeCloseTo((i * 600) / 15)
    const byPitch = new Map(keys.map((k) => [k.pitch, k]))
    for (const k of keys.filter((x) => x.black)) {
      const [below, above] = [byPitch.get(k.pitch - 1), byPitch.get(k.pitch + 1)]
      expect(below?.black || above?.black).toBe(false)
      expect(k.x + k.w / 2).toBeCloseTo(above?.x ?? 0)
      expect(k.h).toBeLessThan(below?.h ?? 0)
    }
  })
})

describe('the fretboard picture', () => {
  it.each(TUNINGS.map((t) => [t.id, t.strings] as const))(
    '%s: places stand apart, inside, low strings low',
    (_, strings) => {
      const tuning = tuningFrom(strings)
      for (const position of [WHOLE_NECK, ...POSITIONS])
        for (const leftHanded of [false, true]) {
          const layout = layoutFretboard(tuning, position, leftHanded, 640, 360)
          const other = layoutFretboard(tuning, position, !leftHanded, 640, 360)
          const frets = fretsIn(tuning, position)
          const places = frets.map((f) => ({ ...f, ...layout.at(f) }))
          expect(new Set(places.map((p) => `${p.x.toFixed(2)} ${p.y.toFixed(2)}`)).size).toBe(frets.length)
          for (const p of places) {
            expect(p.x - layout.tab.w / 2).toBeGreaterThanOrEqual(-0.01)
            expect(p.x + layout.tab.w / 2).toBeLessThanOrEqual(640.01)
            expect(p.x + other.at(p).x).toBeCloseTo(640)
            expect(p.y).toBe(other.at(p).y)
            const above = places.find((q) => q.string === p.string + 1 && q.fret === p.fret)
            if (above) expect(above.y).toBeLessThan(p.y)
            const higher = places.find((q) => q.string === p.string && q.fret === p.fret + 1)
            if (higher) expect(higher.x > p.x).toBe(!leftHanded)
          }
        }
    },
  )
  it('shows the usual guitar where the kept tuning does not read', () => {
    const usual = readTuning(TUNINGS[0].strings)
    expect(tuningFrom('E2 nonsense')).toEqual(usual.ok && usual.value)
  })
})

describe('the staff', () => {
  it.each(['treble', 'bass', 'alto'] as const)('begins low on the %s clef and goes up by the scale', (clef) => {
    for (const name of ['A & B+', 'G half-whole', 'Bb chromatic', 'C quartal 5']) {
      const read = readOverlay(name)
      if (!read.ok) throw new Error(name)
      const up = scaleUp(read.value, clef)
      expect(up[0]?.note).toBe(read.value.root)
      expect(up[0]?.pitch).toBeLessThan(CLEF_LOW[clef] + 12)
      expect((up.at(-1)?.pitch ?? 0) - (up[0]?.pitch ?? 0)).toBeLessThan(12)
      expect(up.map((p) => p.note.name).sort()).toEqual(read.value.notes.map((n) => n.name).sort())
    }
  })
})

describe('a figure that fills its box', () => {
  it.each([
    [560, 360, 1],
    [490, 300, 1],
    [900, 640, 1.75],
    [700, 420, 1],
  ])('%i by %i', (w, h, scale) => {
    const sizes = sizesFor(w, h, scale)
    expect(widthOf(sizes)).toBeCloseTo(w)
    expect(heightOf(sizes)).toBeCloseTo(h)
    expect(Math.min(sizes.type.name, sizes.type.degree)).toBeGreaterThanOrEqual(13)
    expect(sizes.tab.w).toBeLessThan(sizes.column)
  })
})

describe('walking by arrows', () => {
  const grid = [0, 1, 2].flatMap((y) => [0, 1, 2].map((x) => ({ x: x * 10, y: y * 10 })))
  it.each([
    [4, 'ArrowRight', 5],
    [4, 'ArrowLeft', 3],
    [4, 'ArrowUp', 1],
    [4, 'ArrowDown', 7],
    [2, 'ArrowRight', 2],
    [0, 'ArrowUp', 0],
    [4, 'Enter', 4],
  ])('from %i by %s to %i', (from, key, to) => {
    expect(stepTo(grid, from, key)).toBe(to)
  })
})
