import { describe, expect, it } from 'vitest'
import { analyseLine, DEFAULT_SCHOOL, DEFAULT_WEIGHTS, lineOf, midi, ticks, UNISON } from '../../core/index.ts'
import { cellPath, fitting, LINE, layoutLine, stretchPath } from './line-band-layout.ts'
import { liftOver, MIDDLE, STAFF, staffHeight, stepsFromMiddle } from './staff-size.ts'
import { loopPath, xOfTick } from './strip-layout.ts'

const note = (at: number, length: number, pitch: number) => ({ at: ticks(at), for: ticks(length), pitch: midi(pitch) })
const apart = (text: string, notes: readonly ReturnType<typeof note>[]) => {
  const asked = { text, overrides: null, written: UNISON, school: DEFAULT_SCHOOL, weights: DEFAULT_WEIGHTS }
  const lineAnalysis = analyseLine({ ...asked, notes: lineOf(notes) })
  if (!lineAnalysis) throw new Error('no chart')
  return lineAnalysis
}
const NOTES = [note(0, 480, 64), note(480, 480, 61), note(960, 960, 60), note(3840 * 2 + 960, 480, 67)]
const { audit, chart } = apart('| Cmaj7 | Dm7 |', NOTES)
const layout = layoutLine(audit, chart, { withTab: false, zoom: 0, low: false, lift: 0 })

describe('the band of a line', () => {
  it('has every note at its moment, as long as it lasts, as high as it is far out', () => {
    for (const [i, n] of audit.notes.entries()) {
      expect(layout.notes[i]?.x).toBe(layout.x(n.at))
      expect(layout.tickAt(layout.x(n.at))).toBeCloseTo(n.at)
    }
    const [inside, outside] = layout.notes
    expect(inside?.y).toBe(layout.home - LINE.tab)
    expect(outside?.y).toBeLessThan(inside?.y ?? 0)
    expect(layout.notes[2]?.w).toBeCloseTo(layout.x(1920) - layout.x(960) - 3)
  })
  it('goes round its form again where the line is longer, each bar where the last one ends', () => {
    expect(layout.bars.map((b) => b.number)).toEqual([1, 2, 1, 2])
    for (const [i, b] of layout.bars.entries()) expect(b.to).toBe(layout.bars[i + 1]?.from ?? 3840 * 4)
  })
  it('is wider by zoom, and higher by its tablature', () => {
    const wide = layoutLine(audit, chart, { withTab: true, zoom: 2, low: false, lift: 0 })
    expect(wide.x(960) - LINE.margin).toBeGreaterThan((layout.x(960) - LINE.margin) * 1.7)
    expect(wide.home - layout.home).toBe(STAFF.tabHeight)
    expect(wide.height).toBeGreaterThan(layout.height)
    expect(staffHeight(true)).toBe(STAFF.height + STAFF.tabHeight)
  })
  it('stands lower under high notes and rises less in a short window', () => {
    const shown = { withTab: false, zoom: 0, low: false, lift: 0 }
    expect(layoutLine(audit, chart, { ...shown, low: true }).height).toBeLessThan(layout.height)
    const lift = liftOver(90, 'treble')
    expect(lift).toBeGreaterThan(0)
    expect(layoutLine(audit, chart, { ...shown, lift }).staff).toBe(layout.staff + lift)
    expect(liftOver(74, 'treble')).toBe(0)
  })
  it('brackets what belongs together; a stretch that lands comes down to the home line, another stays open', () => {
    expect(stretchPath(layout, 1, 1, 2)).toContain(`,${layout.home + 3}`)
    expect(stretchPath(layout, 1, 1, null)).not.toContain(' L')
    expect(stretchPath(layout, 1, 99, null)).toBe('')
    expect(cellPath(layout, 0, 2)).toMatch(/^M[\d.]+,[\d.]+ V[\d.]+ H[\d.]+ v-6$/)
  })
  it.each([
    ['B minor', 200, 'B minor'],
    ['B minor pentatonic', 80, 'B minor pe…'],
    ['B minor', 20, ''],
  ])('says “%s” in %d px as “%s”', (name, width, said) => expect(fitting(name, width)).toBe(said))
})

describe('the staff of a line', () => {
  it('knows the middle line by its height, and steps from it', () => {
    const middle = STAFF.scale * (STAFF.top + 60)
    expect(stepsFromMiddle(middle)).toBe(0)
    expect(stepsFromMiddle(middle - STAFF.scale * 5)).toBe(1)
    expect(stepsFromMiddle(middle + STAFF.scale * 20)).toBe(-4)
    expect([MIDDLE.treble % 7, MIDDLE.alto % 7, MIDDLE.bass % 7]).toEqual([6, 0, 1])
  })
})

describe('the strip', () => {
  const boxes = [
    { x: 10, w: 100 },
    { x: 110, w: 50 },
  ]
  it('shows where the music is, the second chorus as the first', () => {
    expect(xOfTick(boxes, [3840, 1920], 1920)).toBe(60)
    expect(xOfTick(boxes, [3840, 1920], 3840 + 960)).toBe(135)
    expect(xOfTick(boxes, [3840, 1920], 5760 + 1920)).toBe(60)
    expect(xOfTick([], [], 100)).toBe(0)
  })
  it('brackets a loop from its first box to its last, and nothing where there is none', () => {
    expect(loopPath(boxes[0], boxes[1])).toBe('M11.5,12 V2.5 H158.5 V12')
    expect(loopPath(undefined, boxes[1])).toBe('')
  })
})
