import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { analyseChart } from './analyse.ts'
import { mendedText } from './mend.ts'
import { readChart } from './read-chart.ts'
import { type Reharmonisation, reharmonisationsAt } from './reharmonise.ts'

const chart = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const at = (text: string, bar: number, beat = 1): readonly Reharmonisation[] => {
  const c = chart(text)
  const { spots } = analyseChart(c, true)
  const spot = spots.find((s) => s.spot.bar === bar && s.spot.at === (beat - 1) * 960)
  return spot ? reharmonisationsAt(c, text, spots, spot) : []
}
const made = (text: string, r: Reharmonisation | undefined): string =>
  [...(r?.edits ?? [])].reverse().reduce((so, e) => mendedText(so, e), text)
const taken = (text: string, kind: Reharmonisation['kind'], bar: number, beat = 1): string =>
  made(
    text,
    at(text, bar, beat).find((r) => r.kind === kind),
  )

describe('what could stand there instead', () => {
  it.each<[Reharmonisation['kind'], string, number, number, string]>([
    ['tritone substitute', '| Dm7 | G7 | Cmaj7 |', 2, 1, '| Dm7 | Db7 | Cmaj7 |'],
    ['tritone substitute', '| Dm7 G7 | Cmaj7 |', 1, 3, '| Dm7 Db7 | Cmaj7 |'],
    ['diminished for a dominant', '| Cmaj7 | A7 | Dm7 | G7 |', 2, 1, '| Cmaj7 | C#dim7 | Dm7 | G7 |'],
    ['dominant for a minor chord', '| Dm7 | G7 | Cmaj7 |', 1, 1, '| D7 | G7 | Cmaj7 |'],
    ['neighbour chord', '| Cmaj7 | Fmaj7 | C6 |', 1, 1, '| Cmaj7 Gbmaj7 | Fmaj7 | C6 |'],
    ['neighbour chord', 'metre = 5/4\n| Cmaj7 | Fmaj7 | C6 |', 1, 1, 'metre = 5/4\n| Cmaj7:2 Gbmaj7 | Fmaj7 | C6 |'],
    ['chromatic ii-V', '| Cmaj7 | % | Dm7 G7 | Cmaj7 |', 2, 1, '| Cmaj7 | Ebm7 Ab7 | Dm7 G7 | Cmaj7 |'],
    ['tritone substitute', '|: Dm7 | G7 :| Cmaj7 | Cmaj7 |', 4, 1, '|: Dm7 | Db7 :| Cmaj7 | Cmaj7 |'],
    ['tritone substitute', '| G7 | % | Cmaj7 | G7 |', 4, 1, '| G7 | % | Cmaj7 | G7 |'],
    ['neighbour chord', '| Cmaj7 | % | Fmaj7 |', 1, 1, '| Cmaj7 | % | Fmaj7 |'],
    ['neighbour chord', '| Am7 | Fmaj7 | % | C6 |', 1, 1, '| Am7 Gbmaj7 | Fmaj7 | % | C6 |'],
    ['dominant for a minor chord', '| Dm7 | % | G7 | Cmaj7 |', 2, 1, '| Dm7 | D7 | G7 | Cmaj7 |'],
  ])('%s in %s, bar %i beat %i', (kind, text, bar, beat, expected) => {
    expect(taken(text, kind, bar, beat)).toBe(expected)
  })
  it('writes out a % that would repeat the new bar', () => {
    expect(taken('| E7 | % | Am7 | Dm7 |\n| G7 | Cmaj7 |', 'dominant for a minor chord', 3)).toBe(
      '| E7 | % | A7 | Dm7 |\n| G7 | Cmaj7 |',
    )
    const text = '| Am7 D7 | % | Gmaj7 |'
    expect(taken(text, 'dominant for a minor chord', 1)).toBe('| A7 D7 | Am7 D7 | Gmaj7 |')
  })
  it('always leaves a chart that reads, with as many bars and beats', () => {
    const files = readdirSync(new URL('../../../demo/charts/', import.meta.url))
    let seen = 0
    for (const f of files) {
      const text = readFileSync(new URL(`../../../demo/charts/${f}`, import.meta.url), 'utf8')
      const c = chart(text)
      const { spots } = analyseChart(c, true)
      for (const spot of spots)
        for (const r of reharmonisationsAt(c, text, spots, spot)) {
          const changed = chart(made(text, r))
          expect(changed.bars.length).toBe(c.bars.length)
          expect(changed.bars.find((b) => b.number === r.bar)?.spots.map((s) => s.chord.symbol)).toEqual(r.instead)
          expect(r.shortest).toBeGreaterThan(0)
          seen++
        }
    }
    expect(seen).toBeGreaterThan(60)
  })
})
