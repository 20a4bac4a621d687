import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { has } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { FAMILY_NAMES } from './candidates.ts'
import { ANYTHING, rankOverlays, rankPairs } from './rank.ts'
import { placeOf, readOver } from './read.ts'
import { DEFAULT_WEIGHTS } from './weights.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const place = (over: string, to: string | null) => placeOf(chord(over), to === null ? null : chord(to))
const PAIRS = { ...ANYTHING, sort: 'fade' as const, qualities: null, distance: null, exclusive: null }

describe('a ranking', () => {
  it('gives every overlay the fade and landing of its whole reading, in order', () => {
    for (const [over, to] of [
      ['Eb7', 'Abmaj7'],
      ['F#m7', 'B7'],
      ['C7alt', null],
      ['Gdim7', 'F#m7'],
    ] as const) {
      const here = place(over, to)
      const ranked = rankOverlays(here, { ...ANYTHING, families: FAMILY_NAMES, sort: 'fade' }, DEFAULT_WEIGHTS)
      expect(ranked.length).toBeGreaterThan(1000)
      let before = -1
      for (const r of ranked) {
        const whole = readOver(r.overlay(), here)
        expect([r.measured.fade, r.measured.landing], whole.overlay.name).toEqual([whole.fade, whole.landing])
        expect(r.measured.fade).toBeGreaterThanOrEqual(before)
        before = r.measured.fade
      }
    }
  })

  it('keeps to what was wished', () => {
    const here = place('Eb7', 'Abmaj7')
    const [nine, seven] = [1 << 5, 1 << 2] as readonly [number, number]
    const wish = {
      ...ANYTHING,
      hold: nine as PcSet,
      avoid: seven as PcSet,
      fadeMax: 40,
      landingMin: 60,
      sort: 'landing' as const,
    }
    const ranked = rankOverlays(here, wish, DEFAULT_WEIGHTS)
    expect(ranked.length).toBeGreaterThan(10)
    for (const r of ranked) {
      const { set } = r.overlay()
      expect(has(set, 5) && !has(set, 2) && r.measured.fade <= 40 && (r.measured.landing ?? 0) >= 60).toBe(true)
    }
  })

  it('names the tritone partner’s major pentatonic and the minor one on the b3 as one set over an altered dominant', () => {
    for (const [over, major, minor] of [
      ['B7alt', 'F', 'D'],
      ['E7alt', 'Bb', 'G'],
      ['C#7alt', 'G', 'E'],
    ] as const) {
      const ranked = rankOverlays(
        place(over, null),
        { ...ANYTHING, families: ['pentatonic'], sort: 'fade' },
        DEFAULT_WEIGHTS,
      )
      const find = (name: string) => ranked.find((r) => r.overlay().name === name)
      expect(find(`${major} major pentatonic`)?.overlay().set).toBe(find(`${minor} minor pentatonic`)?.overlay().set)
    }
  })
})

describe('pairs', () => {
  it('of mutually exclusive triads have six notes, others fewer; each reads as its whole', () => {
    const here = place('Db7', 'Gbmaj7')
    for (const exclusive of [true, false]) {
      const ranked = rankPairs(here, { ...PAIRS, exclusive }, DEFAULT_WEIGHTS)
      expect(ranked.length).toBeGreaterThan(500)
      for (const r of ranked.filter((_, i) => i % 17 === 0)) {
        const whole = readOver(r.overlay(), here)
        expect(whole.notes.length === 6, whole.overlay.name).toBe(exclusive)
        expect([r.measured.fade, r.measured.landing]).toEqual([whole.fade, whole.landing])
      }
    }
  })

  it.each([
    ['Db7', 'Db', 'G', '1 3 5', '#11 b7 b9'],
    ['A7', 'A', 'Eb', '1 3 5', '#11 b7 b9'],
    ['F7', 'F', 'B', '1 3 5', '#11 b7 b9'],
  ])('two major triads a tritone apart over %s', (over, first, second, own, far) => {
    const wish = { ...PAIRS, qualities: ['', ''] as const, distance: 6, exclusive: true }
    const found = rankPairs(place(over, null), wish, DEFAULT_WEIGHTS).map((r) =>
      readOver(r.overlay(), place(over, null)),
    )
    expect(found).toHaveLength(6)
    const reading = found.find((r) => r.overlay.name === `${first} & ${second}`)
    const degrees = (i: 0 | 1) =>
      reading?.overlay.groups?.[i].notes.map((n) => reading.notes.find((m) => m.note.pc === n.pc)?.degree).join(' ')
    expect([degrees(0), degrees(1)]).toEqual([own, far])
  })
})
