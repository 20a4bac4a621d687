import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Overlay } from '../material/overlay.ts'
import { membersOf, shared, sizeOf } from '../pitch/pcset.ts'
import { readOver } from '../reading/read.ts'
import { motionBetween } from '../reading/seam.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { chartOfWords, planned } from '../testing/routes.ts'
import { overlayNamed } from '../testing/words.ts'
import { totalOf } from './costs.ts'
import { type Motion, NO_RULES, type RouteRules, readMotion } from './rules.ts'
import type { Slot } from './slots.ts'
import { offerOf, stepCandidates } from './step-candidates.ts'
import { usualFade } from './usual.ts'

const sumOf = (all: readonly number[]): number => all.reduce((sum, n) => sum + n, 0)

/** A chain's costs by the words of the theory page, one step at a time, from the full readings. */
const costed = (slots: readonly Slot[], chain: readonly Overlay[], rules: RouteRules) => {
  const readings = chain.map((o, i) => readOver(o, (slots[i] as Slot).place))
  const seams = chain.slice(1).map((o, i) => [i, chain[i] as Overlay, o] as const)
  const carried = (i: number): boolean => (slots[i] as Slot).carries
  const motionOf = (a: Overlay, b: Overlay): number => Math.round(10 * motionBetween(a.set, b.set))
  const closing = rules.loop && chain.length > 1 ? motionOf(chain.at(-1) as Overlay, chain[0] as Overlay) : 0
  let [repeats, over] = [0, 1]
  let last = ''
  if (rules.usual && rules.motion.kind !== 'shape')
    for (const [i, a, b] of seams) {
      const moves = slots[i]?.chord.symbol !== slots[i + 1]?.chord.symbol && !carried(i + 1)
      if (a.set !== b.set) over = 1
      else if (moves && ++over > 2) repeats += 12
    }
  for (const [i, { fade }] of readings.entries()) {
    const { chord } = slots[i] as Slot
    const overlay = chain[i] as Overlay
    if (fade < 25 || carried(i)) continue
    const device = `${overlay.material?.name}@${(overlay.root.pc - chord.root.pc + 12) % 12}`
    const before = chain[i - 1]
    const goesOn =
      before?.set === overlay.set &&
      slots[i - 1]?.chord.symbol === chord.symbol &&
      (readings[i - 1]?.fade ?? 0) >= 25 &&
      !carried(i - 1)
    if (!goesOn && device === last && rules.motion.kind !== 'shape') repeats += 12
    last = device
  }
  return {
    arcMiss: sumOf(readings.map((r, i) => Math.abs(r.fade - (rules.arc[i] ?? r.fade)))),
    motion: closing + sumOf(seams.map(([i, a, b]) => (carried(i + 1) ? 0 : motionOf(a, b)))),
    landingMiss: sumOf(readings.map((r) => (r.landing === null ? 0 : Math.round(((100 - r.landing) * r.fade) / 200)))),
    repeats,
    rubs: sumOf(
      readings.map((r, i) => {
        const { job, resolves } = (slots[i] as Slot).spot
        const home = rules.usual && resolves && job?.kind.endsWith('V')
        return home ? 15 * r.notes.filter((n) => n.rub !== null).length : 0
      }),
    ),
  }
}

const sumTerms = (t: ReturnType<typeof costed>): number => t.arcMiss + t.motion + t.landingMiss + t.repeats + t.rubs

/** Whether a seam is what a rule asks for, by the notes themselves. */
const obeys = (a: Overlay, b: Overlay, motion: Motion): boolean => {
  if (motion.kind === 'one-note')
    return sizeOf(a.set) === sizeOf(b.set) && sizeOf(shared(a.set, b.set)) === sizeOf(a.set) - 1
  if (motion.kind !== 'shape') return true
  const moved = (n: number): boolean =>
    membersOf(a.set).every((pc) => membersOf(b.set).includes(((pc + n + 24) % 12) as typeof pc))
  return sizeOf(a.set) === sizeOf(b.set) && moved(motion.by ?? 0)
}

const everyChain = <T>(choices: readonly (readonly T[])[]): readonly (readonly T[])[] =>
  choices.reduce<readonly (readonly T[])[]>((chains, next) => chains.flatMap((c) => next.map((n) => [...c, n])), [[]])

const CHARTS = [
  '| Dm7 | G7 | Cmaj7 |',
  '| Cm7 F7 | Bbmaj7 Ebm7 |',
  '| G7 | % | % | C7 |',
  '| F#m7b5 B7b9 | Em6 | Db7 |',
  '| Am7 | D7alt Gmaj7 |',
  '| Dm7 G7 | Em7 A7 |',
] as const
const SHAPES = ['minor pentatonic', 'major pentatonic', '7 arpeggio', 'whole tone', 'm', 'dim7 arpeggio'] as const
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'] as const

const nameOn = (shape: string, pc: number): string => (shape === 'm' ? `${ROOTS[pc]}m` : `${ROOTS[pc]} ${shape}`)

interface Case {
  readonly text: string
  readonly devices: readonly (readonly [string, number])[]
  readonly motion: string
  readonly throughout: boolean
  readonly loop: boolean
  readonly asOne: boolean
  readonly arc: readonly number[]
  readonly lock: number | null
  readonly usual: boolean
}
const cases: fc.Arbitrary<Case> = fc.record({
  text: fc.constantFrom(...CHARTS),
  devices: fc.uniqueArray(fc.tuple(fc.constantFrom(...SHAPES), fc.integer({ min: 0, max: 11 })), {
    minLength: 2,
    maxLength: 3,
    selector: ([shape, up]) => shape + up,
  }),
  motion: fc.constantFrom('free', 'free', '+1', '-2', 'one-note'),
  throughout: fc.boolean(),
  loop: fc.boolean(),
  asOne: fc.boolean(),
  arc: fc.array(fc.integer({ min: 0, max: 80 }), { minLength: 4, maxLength: 4 }),
  lock: fc.option(fc.integer({ min: 0, max: 2 })),
  usual: fc.boolean(),
})

/** Each device on each chord: the sets that may be used anywhere, so that devices come again and shapes can move. */
const allowedIn = (slots: readonly Slot[], { devices }: Case): readonly Overlay[] =>
  slots.flatMap((s) => devices.map(([shape, up]) => overlayNamed(nameOn(shape, (s.chord.root.pc + up) % 12))))

const FAMILIES = ['triad', 'seventh', 'pentatonic', 'symmetric'] as const

const rulesFor = (slots: readonly Slot[], c: Case): RouteRules => {
  const allowed = allowedIn(slots, c)
  const open = { ...NO_RULES, families: FAMILIES }
  const all = stepCandidates(slots[0] as Slot, null, open, DEFAULT_WEIGHTS, offerOf(FAMILIES))
  const others = all.filter((o) => !allowed.some((a) => a.set === o.set))
  return {
    ...open,
    arc: slots.map((s, i) => (c.usual ? usualFade(s) : (c.arc[i] ?? 30))),
    usual: c.usual,
    motion: readMotion(c.motion) ?? NO_RULES.motion,
    scope: c.throughout ? 'throughout' : 'cadence',
    loop: c.loop,
    locks: c.lock === null ? [] : [{ step: c.lock, overlay: allowed[0] as Overlay }],
    bans: others.map((o) => ({ step: null, overlay: o.overlay(), device: null })),
  }
}

/** Every chain that keeps to the rules, with its costs; tried one by one. */
const tried = (slots: readonly Slot[], rules: RouteRules) => {
  const choices: (readonly Overlay[])[] = []
  for (const slot of slots) {
    const found = stepCandidates(slot, null, rules, DEFAULT_WEIGHTS, offerOf(FAMILIES)).map((c) => c.overlay())
    const lock = rules.locks.find((l) => l.step === slot.index)
    choices.push(lock ? [lock.overlay] : found)
  }
  const follows = (a: Overlay, b: Overlay, from: Slot, to: Slot): boolean => {
    if (to.carries) return a.set === b.set
    const cadence = from.cadence !== null && from.cadence === to.cadence
    if (rules.scope === 'cadence' && !cadence) return true
    const stays = rules.scope === 'cadence' && from.chord.symbol === to.chord.symbol && a.set === b.set
    return obeys(a, b, rules.motion) || stays
  }
  const keeps = (chain: readonly Overlay[]): boolean => {
    const pairs = chain.slice(1).map((b, i) => [i, i + 1, chain[i] as Overlay, b] as const)
    const closing = rules.loop && chain.length > 1
    const all = closing
      ? [...pairs, [chain.length - 1, 0, chain.at(-1) as Overlay, chain[0] as Overlay] as const]
      : pairs
    return all.every(([i, j, a, b]) => follows(a, b, slots[i] as Slot, slots[j] as Slot))
  }
  return everyChain(choices)
    .filter(keeps)
    .map((chain) => ({ chain, terms: costed(slots, chain, rules) }))
    .sort((a, b) => sumTerms(a.terms) - sumTerms(b.terms))
}

describe('planning', () => {
  it('finds what trying every chain finds: the same best totals, each the sum of its terms', () => {
    let [withRoutes, withRepeats] = [0, 0]
    fc.assert(
      fc.property(cases, (c) => {
        const { slots } = chartOfWords(c.text, { holdsAsOne: c.asOne })
        const rules = rulesFor(slots, c)
        const routes = planned(slots, rules, 5)
        const all = tried(slots, rules)
        expect(routes.map((r) => r.total)).toEqual(all.slice(0, 5).map((a) => sumTerms(a.terms)))
        for (const r of routes) {
          const chain = r.steps.map((s) => s.overlay)
          expect(r.terms).toEqual(costed(slots, chain, rules))
          expect(totalOf(r.terms)).toBe(r.total)
        }
        if (routes.length > 0) withRoutes++
        if (all.some((a) => a.terms.repeats > 0)) withRepeats++
      }),
      { numRuns: 120, seed: 11 },
    )
    expect(withRoutes).toBeGreaterThan(60)
    expect(withRepeats).toBeGreaterThan(30)
  })
})
