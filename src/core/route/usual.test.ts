import { describe, expect, it } from 'vitest'
import { readOver } from '../reading/read.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { chartOfWords, planned } from '../testing/routes.ts'
import { rulesOver } from './options.ts'
import { recipesIn } from './recipes.ts'
import { describeRoutes } from './report.ts'
import { PLAIN_REQUEST, readRequest } from './request.ts'
import { sharedStart } from './titles.ts'
import { usualFade } from './usual.ts'

/** A plan with nothing asked: no arc, one chain for each series of devices. */
const unasked = (text: string, best = 12) => {
  const { slots } = chartOfWords(text)
  const read = readRequest(PLAIN_REQUEST, 'as minor')
  if (!read.ok) throw new Error(text)
  return planned(slots, rulesOver(slots, read.value), best, true)
}

const CHARTS = [
  '| Dm7 | G7 | Cmaj7 | % |',
  '| Fm7 Bb7 | Ebmaj7 Cm7 | Fm7 Bb7 | Eb6 |',
  '| Bm7b5 | E7b9 | Am6 | % |',
  '| Abmaj7 | Dbmaj7 | Bbm7 | Eb7 | Cm7 F7 | Bbm7 Eb7 | Ab6 | % |',
  '| F#m7 | B7 | Emaj7 C#7 | F#m7 B7 | Emaj7 | Am7 D7 | Gmaj7 | F#m7 B7 |',
  '| D7 | G7 | D7 | D7 | G7 | G#dim7 | D7 | F#m7b5 B7 | Em7 | A7 | D7 B7 | Em7 A7 |',
] as const

describe('a route for which no arc is given', () => {
  it.each([
    ['| Dm7 | G7 | Cmaj7 | Fmaj7 |', [15, 35, 10, 20]],
    ['| Bm7b5 | E7 | Am6 | Dm7 |', [15, 35, 10, 20]],
    ['| Ebm7 | Ab7 | Gmaj7 | % |', [15, 35, 10, 10]],
    ['| Bbmaj7 | Eb7 | Bbmaj7 | F7 |', [10, 20, 10, 35]],
    ['| Amaj7 | G7 | Amaj7 | E7 |', [10, 35, 10, 35]],
    ['| Dm11 | % | % | Em7 |', [20, 20, 20, 20]],
  ])('%s is wished at %s', (text, fades) => {
    expect(chartOfWords(text).slots.map(usualFade)).toEqual(fades)
  })
  it.each(CHARTS)(
    '%s: is charged for what it misses, rests on the tonic, and holds nothing for a whole chorus',
    (text) => {
      for (const { steps } of unasked(text)) {
        for (const s of steps) {
          expect(s.terms.arcMiss).toBe(Math.abs(s.fade - (s.wished ?? -1)))
          if (s.slot.spot.job?.kind === 'tonic') expect(s.fade).toBeLessThanOrEqual(30)
          const rubs = readOver(s.overlay, s.slot.place).notes.filter((n) => n.rub !== null).length
          const home = s.slot.spot.resolves && s.slot.spot.job?.kind.endsWith('V')
          expect(s.terms.rubs).toBe(home ? 15 * rubs : 0)
        }
        const sets = new Set(steps.map((s) => s.overlay.set))
        if (steps.length > 3) expect(sets.size).toBeGreaterThan(1)
      }
    },
  )
  it.each(CHARTS)('%s: every chain is another series of devices, under a title of its own', (text) => {
    const routes = unasked(text)
    const told = describeRoutes(routes, DEFAULT_WEIGHTS)
    expect(routes.length).toBeGreaterThan(3)
    expect(new Set(told.map((r) => r.title)).size).toBe(told.length)
    for (const { title } of told) {
      const devices = title.split(/; |, /).map((part) => part.replace(/ (over|in bar) .*/, ''))
      expect(new Set(devices).size, title).toBe(devices.length)
    }
    const colours = routes.map((r) =>
      r.steps
        .filter((s) => s.fade >= 25)
        .map((s) => `${s.device.formula} ${s.device.up}`)
        .join(),
    )
    expect(new Set(colours).size).toBe(colours.length)
    expect(told[0]?.title).toMatch(/^(#?b?[IV]+ .+ over .+, (home by|with nothing)|All inside, )/)
  })
})

describe('a recipe is offered only where its sentences are true', () => {
  const offered = (text: string): readonly string[] => {
    const { chart, analysis, slots } = chartOfWords(text)
    return recipesIn({
      chart,
      analysis,
      slots,
      school: (slots[0] as (typeof slots)[number]).place.school,
      other: null,
    }).map((r) => r.name)
  }
  it.each([
    ['minor pentatonics rising', '| Dm7 | G7 | Cmaj7 | % |', true],
    ['minor pentatonics rising', '| Dm7 | G7 | Cm6 | % |', false],
    ['minor pentatonics rising', '| Dm7 | G7 | F#maj7 | % |', false],
    ['minor pentatonics rising', '| Bbm7 | Eb7 | Abmaj7 | % |', true],
    ["the partner's pentatonic, then down", '| A7 | Dmaj7 | % | % |', true],
    ["the partner's pentatonic, then down", '| A7sus4 | Dmaj7 | % | % |', false],
    ["the partner's pentatonic, then down", '| A7 | F#m7 | % | % |', false],
    ['diminished on the b9', '| F7 | Bbm6 | % | % |', true],
    ['diminished on the b9', '| F13 | Bbmaj7 | % | % |', false],
    ['half-whole over ii and V', '| Fm7 | Bb7 | Ebmaj7 | % |', true],
    ['half-whole over ii and V', '| Fm7 | Bb7sus4 | Ebmaj7 | % |', false],
    ['half-whole over ii and V', '| Fm7 | Bb7alt | Ebmaj7 | % |', false],
    ['descending ii-Vs', '| C#m7 | F#7 | Bmaj7 | % |', true],
    ['descending ii-Vs', '| C#m7 | F#7sus4 | Bmaj7 | % |', false],
    ['triads a third apart', '| Gmaj7 | % | Am7 | D7 |', true],
    ['triads a third apart', '| Gm7 | % | Am7 | D7 |', false],
  ] as const)('%s over %s: %s', (name, text, is) => {
    expect(offered(text).includes(name)).toBe(is)
  })
})

describe('the start a title shares with the first of its list', () => {
  it.each([
    ['V7 over the V; iii in bar 8', 'V7 over the V; IV in bar 8', 'V7 over the V; '],
    ['V7 over the V; IV in bar 8 (2): D in bar 13', 'V7 over the V; IV in bar 8', 'V7 over the V; IV in bar 8 '],
    ['V7 over the V; IV in bar 12', 'V7 over the V; IV in bar 1', 'V7 over the V; '],
    ['V7 over the ii', 'V7 over the V', ''],
    ['V7 over the V', 'V7 over the V; IV in bar 8', ''],
    ['All inside, I over the IV; IV in bar 2', 'V7 over the V; IV in bar 2', ''],
  ])('%s', (title, first, shared) => {
    expect(sharedStart(title, first)).toBe(shared)
  })
  it.each(CHARTS)('%s: what is left of each title tells it from every other', (text) => {
    const titles = describeRoutes(unasked(text), DEFAULT_WEIGHTS).map((r) => r.title)
    const left = titles.map((t) => t.slice(t === titles[0] ? 0 : sharedStart(t, titles[0] ?? '').length))
    expect(new Set(left).size).toBe(titles.length)
    expect(left).not.toContain('')
  })
})
