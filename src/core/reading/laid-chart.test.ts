import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { analyseChart } from '../chart/analyse.ts'
import { readChart } from '../chart/read-chart.ts'
import { bestLanding, layInAllKeys, nearestFade } from './laid-chart.ts'
import { DEFAULT_SCHOOL } from './school.ts'
import { DEFAULT_WEIGHTS } from './weights.ts'

const chart = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const laid = (under: string, over: string) => {
  const c = chart(under)
  return layInAllKeys(c, analyseChart(c, true).spots, chart(over), DEFAULT_SCHOOL, DEFAULT_WEIGHTS)
}
const symbols = (all: ReturnType<typeof laid>, shift: number) =>
  all.find((l) => l.shift === shift)?.bars.map((b) => b.chords.map((c) => c.laid.symbol).join(' '))

describe('another chart laid over this one', () => {
  it('over itself, unmoved, is all chord tones', () => {
    const text = readFileSync(new URL('../../../demo/charts/2-low-water.txt', import.meta.url), 'utf8')
    const [same] = laid(text, text)
    expect(same?.bars.flatMap((b) => b.chords.flatMap((c) => c.reading.notes.map((n) => n.role)))).not.toContain(
      'outside',
    )
    expect(Math.min(...laid(text, text).map((l) => l.fade))).toBe(same?.fade)
  })
  it('begins again where it ends, and is cut at this chart’s chords', () => {
    expect(symbols(laid('| C | F | G7 C | F |', '| Eb | Ab7 Db |'), 0)).toEqual(['Eb', 'Ab7', 'Eb Eb', 'Ab7'])
    expect(symbols(laid('metre = 3/4\n| C | F G G |', 'metre = 4/4\n| Eb Ab |'), 1)).toEqual(['E', 'E E A'])
    expect(symbols(laid('| C | N.C. |', '| Eb | Eb |'), 0)).toEqual(['Eb', ''])
  })
  it('finds the transposition that lands best, and the one nearest to a wished fade', () => {
    const all = laid('| G7 | Cmaj7 | A7 | Dm7 |', '| Fmaj7 | Bbmaj7 | Gm7 | C7 |')
    const best = bestLanding(all)
    expect(all.every((l) => (l.landing ?? 0) <= (best?.landing ?? 0))).toBe(true)
    for (const wished of [0, 40, 90]) {
      const near = Math.abs((nearestFade(all, wished)?.fade ?? 0) - wished)
      expect(all.every((l) => Math.abs(l.fade - wished) >= near)).toBe(true)
    }
    expect(new Set(all.map((l) => l.shift)).size).toBe(12)
  })
})
