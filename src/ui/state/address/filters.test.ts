import { describe, expect, it } from 'vitest'
import { FAMILY_NAMES, has, placeOf, rankOverlays, readChord, readOverlay } from '../../../core/index.ts'
import { ranking } from '../../../workers/ranking.ts'
import { settingsFrom } from '../kept/settings.ts'
import { NO_FILTERS, overlayFilterFrom, readFilters, toggled } from './filters.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const { weights, naming, direction, school } = settingsFrom([])
const ask = (over: string, next: string | null, filters = NO_FILTERS) => {
  const [c, n] = [chord(over), next === null ? null : chord(next)]
  const { job } = placeOf(c, n, school)
  const spot = { chord: c.symbol, next: n?.symbol ?? null, job, home: null, school }
  return { spot, filter: overlayFilterFrom(filters, c), weights, naming, direction }
}

describe('a degree in the filter', () => {
  it('turns from either to wanted to refused and back, by one key or the other', () => {
    const wanted = toggled(NO_FILTERS, 6, 'next')
    expect(wanted).toMatchObject({ hold: [6], avoid: [] })
    const refused = toggled(wanted, 6, 'next')
    expect(refused).toMatchObject({ hold: [], avoid: [6] })
    expect(toggled(refused, 6, 'next')).toEqual(NO_FILTERS)
    expect(toggled(NO_FILTERS, 5, 'avoid')).toMatchObject({ avoid: [5] })
    expect(toggled(toggled(NO_FILTERS, 5, 'avoid'), 5, 'avoid')).toEqual(NO_FILTERS)
    expect(toggled(wanted, 6, 'off')).toEqual(NO_FILTERS)
    expect(toggled(wanted, 2, 'hold').hold).toEqual([2, 6])
  })
  it('follows the chord: the same wish on another root', () => {
    const filters = { ...NO_FILTERS, hold: [2, 6], avoid: [5] }
    for (const symbol of ['A7', 'Eb7', 'F#m7']) {
      const c = chord(symbol)
      const wish = overlayFilterFrom(filters, c)
      for (let up = 0; up < 12; up++) {
        expect(has(wish.hold, (c.root.pc + up) % 12)).toBe([2, 6].includes(up))
        expect(has(wish.avoid, (c.root.pc + up) % 12)).toBe(up === 5)
      }
    }
  })
  it('is not set by an address that makes no sense', () => {
    const odd = new URLSearchParams(
      'hold=99,b9&fadeMin=x&fadeMax=900&families=pair,zither&states=loud&sort=colour&keyMax=',
    )
    expect(readFilters(odd)).toEqual({ ...NO_FILTERS, hold: [1], families: ['pair'] })
  })
})

describe('the ranking aside', () => {
  it('is the core’s own, told once per set', () => {
    const list = ranking(
      ask('A7', 'Dmaj7', { ...NO_FILTERS, families: ['mode', 'pentatonic'], hold: [2, 6], avoid: [5], sort: 'fade' }),
    )
    expect(list.names.length).toBeGreaterThan(5)
    const core = rankOverlays(
      placeOf(chord('A7'), chord('Dmaj7')),
      {
        ...overlayFilterFrom({ ...NO_FILTERS, hold: [2, 6], avoid: [5], sort: 'fade' }, chord('A7')),
        families: ['mode', 'pentatonic'],
      },
      weights,
    )
    expect(list.names.length + list.also.reduce((a, b) => a + b, 0)).toBe(core.length)
    const known = new Map(core.map((r) => [r.overlay().name, r.measured]))
    for (const [i, name] of list.names.entries())
      expect([list.fades[i], list.landings[i]]).toEqual([known.get(name)?.fade, known.get(name)?.landing])
    expect([...list.fades]).toEqual([...list.fades].sort((a, b) => a - b))
  })
  it('begins with what is used most, each set once, classics with their sentence', () => {
    const list = ranking(ask('A7', 'Dmaj7'))
    expect(list.names.slice(0, 8)).toContain('Bb melodic minor')
    expect(list.classics[list.names.indexOf('Bb melodic minor')]).toMatch(/half step above/)
    const singles = list.names.filter((_, i) => list.families[i] !== 'pair')
    const sets = singles.map((name) => {
      const read = readOverlay(name)
      return read.ok ? read.value.set : name
    })
    expect(new Set(sets).size).toBe(sets.length)
  })
  it('has no landing without a next chord, and says what to drop where nothing fits', () => {
    const alone = ranking(ask('A7', null, { ...NO_FILTERS, sort: 'fade' }))
    expect(new Set(alone.landings)).toEqual(new Set([-1]))
    expect(new Set(alone.families)).toEqual(new Set(FAMILY_NAMES))
    const none = ranking(ask('A7', null, { ...NO_FILTERS, hold: [4], states: 'vague', avoid: [10], fadeMin: 99 }))
    expect(none.names).toEqual([])
    expect(none.escapes[0]?.drop).toEqual([{ kind: 'fadeMin' }])
    expect(none.escapes[0]?.left).toBeGreaterThan(100)
  })
})
