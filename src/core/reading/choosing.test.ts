import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { holds, membersOf, rotate, setOf } from '../pitch/pcset.ts'
import { placeNamed } from '../testing/words.ts'
import { candidatesOver, FAMILY_NAMES, withoutDoubles } from './candidates.ts'
import { type Escape, escapesFrom, type Filter } from './conflicts.ts'
import { keyDistance } from './key-distance.ts'
import { ANYTHING, type OverlayFilter, rankCandidates } from './rank.ts'
import { readOver } from './read.ts'
import { DEFAULT_WEIGHTS } from './weights.ts'

const PLACES = [placeNamed('A7', 'Dmaj7'), placeNamed('Ebm7', 'Ab7'), placeNamed('C7alt'), placeNamed('Bm7b5', 'E7b9')]
const EVERYTHING: OverlayFilter = { ...ANYTHING, families: FAMILY_NAMES }
const count = (wish: OverlayFilter, place = PLACES[0] as (typeof PLACES)[number]): number =>
  rankCandidates(
    candidatesOver(place, FAMILY_NAMES).filter((c) => wish.families.includes(c.family)),
    place,
    wish,
    DEFAULT_WEIGHTS,
  ).length

const sparse = fc.array(fc.integer({ min: 0, max: 11 }), { maxLength: 3 }).map(setOf)
const anyWish: fc.Arbitrary<OverlayFilter> = fc.record({
  families: fc.subarray([...FAMILY_NAMES], { minLength: 1 }),
  hold: sparse,
  avoid: sparse,
  fadeMin: fc.constantFrom(0, 0, 30, 80),
  fadeMax: fc.constantFrom(null, null, 40, 10),
  landingMin: fc.constantFrom(0, 0, 60, 95),
  keyMax: fc.constantFrom(null, null, 0, 3),
  states: fc.constantFrom(null, null, 'chord' as const, 'vague' as const),
  text: fc.constantFrom('', '', 'pent', 'F# &'),
  sort: fc.constantFrom('fade' as const, 'landing' as const, 'key' as const),
})

const PENTATONICS = candidatesOver(placeNamed('C'), ['pentatonic'])
const isNamedPentatonic = (set: number): boolean => PENTATONICS.some((c) => c.set === set)

describe('what is chosen', () => {
  it('is exactly what a slow reader of the wish would choose', () => {
    const all = PLACES.map((p) => candidatesOver(p, FAMILY_NAMES).filter((_, i) => i % 23 === 0))
    fc.assert(
      fc.property(fc.nat(PLACES.length - 1), anyWish, (at, wish) => {
        const [place, some] = [PLACES[at], all[at]]
        if (!place || !some) throw new Error('no place')
        const guides = rotate(place.chord.quality.guideSet, place.chord.root.pc)
        const home = rotate(place.home.first.set, place.chord.root.pc)
        const slow = some.filter((c) => {
          const r = readOver(c.overlay(), place)
          const limit = wish.fadeMax ?? (wish.sort === 'landing' ? 60 : 100)
          const key = keyDistance(home, c.set)
          return (
            holds(c.set, wish.hold) &&
            (c.set & wish.avoid) === 0 &&
            r.fade >= wish.fadeMin &&
            r.fade <= limit &&
            (wish.landingMin === 0 || (r.landing ?? 0) >= wish.landingMin) &&
            (wish.keyMax === null || (key !== null && key.steps <= wish.keyMax)) &&
            (wish.states === null || holds(c.set, guides) === (wish.states === 'chord')) &&
            r.overlay.name.toLowerCase().includes(wish.text.toLowerCase())
          )
        })
        const fast = rankCandidates(some, place, wish, DEFAULT_WEIGHTS).map((r) => r.candidate)
        expect(new Set(fast)).toEqual(new Set(slow))
      }),
      { numRuns: 60 },
    )
  })

  it('tells a set once in its family, under the chord’s own root or the name the player wants', () => {
    for (const place of PLACES) {
      const all = candidatesOver(place, FAMILY_NAMES)
      for (const naming of ['as minor', 'as major'] as const) {
        const told = withoutDoubles(all, naming)
        const namedElsewhere = all.filter((c) => c.family === 'changed' && isNamedPentatonic(c.set))
        expect(told.length + told.reduce((sum, c) => sum + c.also, 0)).toBe(all.length - namedElsewhere.length)
        expect(new Set(told.map((c) => c.set))).toEqual(new Set(all.map((c) => c.set)))
        const names = told.map((c) => c.overlay().name)
        expect(names.some((n) => n.endsWith(' major pentatonic'))).toBe(naming === 'as major')
        expect(names.some((n) => n.endsWith(' minor pentatonic'))).toBe(naming === 'as minor')
      }
    }
    const half = withoutDoubles(candidatesOver(placeNamed('F7'), ['symmetric']), 'as minor')
    expect(half.filter((c) => c.material?.name === 'half-whole').map((c) => c.overlay().name)).toEqual([
      'F half-whole',
      'F# half-whole',
      'G half-whole',
    ])
  })
})

const without = (w: OverlayFilter, d: Filter, root: number): OverlayFilter => {
  if (d.kind === 'hold' || d.kind === 'avoid')
    return { ...w, [d.kind]: setOf(membersOf(w[d.kind]).filter((pc) => pc !== (d.up + root) % 12)) }
  return { ...w, [d.kind]: d.kind === 'fadeMax' ? 100 : EVERYTHING[d.kind] }
}
const dropped = (wish: OverlayFilter, drop: readonly Filter[], root: number): OverlayFilter =>
  drop.reduce((w, d) => without(w, d, root), wish)

describe('filters that contradict each other', () => {
  const place = placeNamed('A7', 'Dmaj7')
  const all = candidatesOver(place, FAMILY_NAMES)
  it('name the fewest to drop, and what is then left', () => {
    let tried = 0
    fc.assert(
      fc.property(anyWish, (wish) => {
        const escapes = escapesFrom(all, place, wish, DEFAULT_WEIGHTS)
        if (count(wish, place) > 0) {
          expect(escapes).toEqual([])
          return
        }
        tried++
        expect(escapes.length).toBeGreaterThan(0)
        const sizes = new Set(escapes.map((e) => e.drop.length))
        expect(sizes.size).toBe(1)
        for (const e of escapes) expect(count(dropped(wish, e.drop, 9), place)).toBeGreaterThanOrEqual(e.left)
        const first = escapes[0] as Escape
        for (const single of first.drop.length > 1 ? first.drop : [])
          expect(count(dropped(wish, [single], 9), place)).toBe(0)
      }),
      { numRuns: 40 },
    )
    expect(tried).toBeGreaterThan(5)
  })

  it('say it of a degree by the degree', () => {
    const wish = { ...EVERYTHING, families: ['triad'] as const, hold: setOf([9, 10, 11]), avoid: setOf([1]) }
    const drops = escapesFrom(all, place, wish, DEFAULT_WEIGHTS)
    expect(drops[0]?.drop).toEqual([{ kind: 'families' }])
    expect(drops[0]?.left).toBeGreaterThan(3)
  })
})
