import { holds } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { type Candidate, FAMILY_NAMES } from './candidates.ts'
import type { Measured } from './lens.ts'
import { fadeLimit, guidesOver, keyStepsFrom, measurer, type OverlayFilter } from './rank.ts'
import type { Place } from './role.ts'
import type { Weights } from './weights.ts'

/** One filter that a player can drop; `up` counts semitones above the chord's root. */
export type Filter =
  | { readonly kind: 'hold' | 'avoid'; readonly up: number }
  | { readonly kind: 'families' | 'fadeMin' | 'fadeMax' | 'landingMin' | 'keyMax' | 'states' | 'text' }

/** Filters which, dropped together, leave something. */
export interface Escape {
  readonly drop: readonly Filter[]
  readonly left: number
}

interface Test {
  readonly filter: Filter
  readonly fails: (c: Candidate, m: Measured) => boolean
}

const degreeTests = (kind: 'hold' | 'avoid', wish: OverlayFilter, place: Place): readonly Test[] =>
  Array.from({ length: 12 }, (_, pc) => pc)
    .filter((pc) => (wish[kind] >> pc) & 1)
    .map((pc) => ({
      filter: { kind, up: pitchClass(pc - place.chord.root.pc) },
      fails: (c) => ((c.set >> pc) & 1) === (kind === 'hold' ? 0 : 1),
    }))

const testsOf = (wish: OverlayFilter, place: Place): readonly Test[] => {
  const keySteps = keyStepsFrom(place)
  const guides = guidesOver(place)
  const text = wish.text.trim().toLowerCase()
  const test = (active: boolean, kind: Exclude<Filter['kind'], 'hold' | 'avoid'>, fails: Test['fails']) =>
    active ? [{ filter: { kind }, fails }] : []
  return [
    ...degreeTests('hold', wish, place),
    ...degreeTests('avoid', wish, place),
    ...test(wish.fadeMin > 0, 'fadeMin', (_, m) => m.fade < wish.fadeMin),
    ...test(fadeLimit(wish) < 100, 'fadeMax', (_, m) => m.fade > fadeLimit(wish)),
    ...test(wish.landingMin > 0, 'landingMin', (_, m) => (m.landing ?? 0) < wish.landingMin),
    ...test(wish.keyMax !== null, 'keyMax', (c) => keySteps(c.set) > (wish.keyMax ?? 0)),
    ...test(wish.states !== null, 'states', (c) => holds(c.set, guides) !== (wish.states === 'chord')),
    ...test(wish.families.length < FAMILY_NAMES.length, 'families', (c) => !wish.families.includes(c.family)),
    ...test(text !== '', 'text', (c) => !c.overlay().name.toLowerCase().includes(text)),
  ]
}

const sizeOf = (mask: number): number => mask.toString(2).replaceAll('0', '').length

/**
 * Why nothing of all the candidates matches: the smallest groups of filters to drop, those that leave most first, at most three. Each
 * candidate fails some filters; dropping exactly those lets it in. Empty where something matches already.
 */
export const escapesFrom = (
  candidates: readonly Candidate[],
  place: Place,
  wish: OverlayFilter,
  weights: Weights,
): readonly Escape[] => {
  const tests = testsOf(wish, place)
  const measured = measurer(place, weights)
  const groups = new Map<number, number>()
  for (const c of candidates) {
    const m = measured(c)
    let failed = 0
    for (const [i, t] of tests.entries()) if (t.fails(c, m)) failed |= 1 << i
    if (failed === 0) return []
    groups.set(failed, (groups.get(failed) ?? 0) + 1)
  }
  return [...groups]
    .sort(([a, n], [b, m]) => sizeOf(a) - sizeOf(b) || m - n)
    .filter(([mask], _, [[least = 0] = []]) => sizeOf(mask) === sizeOf(least))
    .slice(0, 3)
    .map(([mask, left]) => ({ drop: tests.filter((_, i) => (mask >> i) & 1).map((t) => t.filter), left }))
}
