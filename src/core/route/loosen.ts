import { membersOf } from '../pitch/pcset.ts'
import { FAMILY_NAMES, type FamilyName } from '../reading/candidates.ts'
import type { Weights } from '../reading/weights.ts'
import { NEUTRAL } from './device.ts'
import { isPossible } from './plan.ts'
import type { Motion, RouteRules } from './rules.ts'
import type { Slot } from './slots.ts'
import { offerOf, stepCandidates } from './step-candidates.ts'

/** One rule that gives way: a figure to another one, or a thing that is let go. Steps are counted from 0. */
export type Giving =
  | { readonly of: 'fadeMax' | 'fadeMin' | 'landingMin' | 'rubsFrom'; readonly to: number }
  | { readonly of: 'lock'; readonly step: number }
  | { readonly of: 'ban'; readonly index: number }
  | { readonly of: 'hold' | 'avoid'; readonly up: number }
  | { readonly of: 'windows' | 'loop' | 'scope' }
  | { readonly of: 'motion'; readonly to: Motion }
  | { readonly of: 'family'; readonly family: FamilyName }

/** A way out where the rules allow no route, in a sentence (ASCII), and what gives way for it. */
export interface Loosening {
  readonly text: string
  readonly gives: readonly Giving[]
}

/** The rules with one of them given way. */
const giveWay = (rules: RouteRules, giving: Giving): RouteRules => {
  switch (giving.of) {
    case 'lock':
      return { ...rules, locks: rules.locks.filter((l) => l.step !== giving.step) }
    case 'ban':
      return { ...rules, bans: rules.bans.filter((_, i) => i !== giving.index) }
    case 'hold':
    case 'avoid':
      return { ...rules, [giving.of]: rules[giving.of] & ~(1 << giving.up) }
    case 'windows':
      return { ...rules, windows: [] }
    case 'loop':
      return { ...rules, loop: false }
    case 'scope':
      return { ...rules, scope: 'cadence' }
    case 'motion':
      return { ...rules, motion: giving.to }
    case 'family':
      return { ...rules, families: [...rules.families, giving.family] }
    default:
      return { ...rules, [giving.of]: giving.to }
  }
}

export interface Impossible {
  /** Steps at which nothing at all is left. */
  readonly empty: readonly number[]
  readonly loosen: readonly Loosening[]
}

/** The nearest figure between one that does not do and one that does; null where not even that does. */
function* nearest(
  from: number,
  to: number,
  does: (figure: number) => Generator<number, boolean>,
): Generator<number, number | null> {
  if (from === to || !(yield* does(to))) return null
  let [no, yes] = [from, to]
  while (Math.abs(yes - no) > 1) {
    const middle = Math.round((no + yes) / 2)
    if (yield* does(middle)) yes = middle
    else no = middle
  }
  return yes
}

const FREE: Motion = { kind: 'free' }

/** Every single thing that could be let go. */
const letGo = (slots: readonly Slot[], rules: RouteRules): readonly Loosening[] => {
  const where = (step: number | null): string => {
    const slot = slots[step ?? -1]
    return slot ? `bar ${slot.bar}, ${slot.chord.symbol}` : 'everywhere'
  }
  const one = (text: string, gives: Giving): Loosening => ({ text, gives: [gives] })
  const { motion, scope } = rules
  const bound = motion.kind !== 'free' && motion.kind !== 'fewest'
  return [
    ...rules.locks.map(({ step, overlay }) =>
      one(`Take the lock off ${overlay.name} (${where(step)}).`, { of: 'lock', step }),
    ),
    ...rules.bans.map((b, index) =>
      one(`Allow ${b.overlay?.name ?? b.device} again (${where(b.step)}).`, { of: 'ban', index }),
    ),
    ...membersOf(rules.hold).map((up) => one(`Do not ask for the ${NEUTRAL[up]} on every chord.`, { of: 'hold', up })),
    ...membersOf(rules.avoid).map((up) => one(`Allow the ${NEUTRAL[up]}.`, { of: 'avoid', up })),
    ...(rules.windows.length > 0 ? [one('Let the recipe go.', { of: 'windows' })] : []),
    ...(rules.loop ? [one('Do not join the last step to the first.', { of: 'loop' })] : []),
    ...(bound && scope === 'throughout' ? [one('Keep the motion within each cadence only.', { of: 'scope' })] : []),
    ...(motion.kind === 'shape' && motion.by !== null
      ? [one('Let the shape move by any constant.', { of: 'motion', to: { kind: 'shape', by: null } })]
      : []),
    ...(bound ? [one('Let the motion be free.', { of: 'motion', to: FREE })] : []),
    ...FAMILY_NAMES.filter((f) => f !== 'pair' && !rules.families.includes(f)).map((family) =>
      one(`Add the family ${family}.`, { of: 'family', family }),
    ),
  ]
}

interface Figure {
  readonly of: 'fadeMax' | 'fadeMin' | 'landingMin' | 'rubsFrom'
  readonly to: number
  readonly text: (figure: number, now: number) => string
}
const FIGURES: readonly Figure[] = [
  { of: 'fadeMax', to: 100, text: (n, now) => `Allow a fade of ${n} instead of ${now} at most.` },
  { of: 'fadeMin', to: 0, text: (n, now) => `Allow a fade of ${n} instead of ${now} at least.` },
  { of: 'landingMin', to: 0, text: (n, now) => `Allow a landing of ${n} instead of ${now} at least.` },
  { of: 'rubsFrom', to: 0, text: (n, now) => `Let notes rub from a fade of ${n} on, not from ${now}.` },
]

/**
 * Why the rules allow no route: the steps at which nothing is left, and every single rule that would do if it gave way,
 * figures by no more than they must. Where no single one does, it is tried with the motion free.
 */
export function* loosen(slots: readonly Slot[], rules: RouteRules, weights: Weights): Generator<number, Impossible> {
  const offer = offerOf(rules.families)
  const empty = slots.filter((s) => stepCandidates(s, null, rules, weights, offer).length === 0).map((s) => s.index)
  const found: Loosening[] = []
  for (const figure of FIGURES) {
    const now = rules[figure.of]
    const to = (n: number): Giving => ({ of: figure.of, to: n })
    const enough = yield* nearest(now, figure.to, (n) => isPossible(slots, giveWay(rules, to(n)), weights))
    if (enough !== null) found.push({ text: figure.text(enough, now), gives: [to(enough)] })
  }
  for (const way of letGo(slots, rules))
    if (yield* isPossible(slots, way.gives.reduce(giveWay, rules), weights)) found.push(way)
  if (found.length > 0 || rules.motion.kind === 'free') return { empty, loosen: found }
  const free: Giving = { of: 'motion', to: FREE }
  const further = yield* loosen(slots, giveWay(rules, free), weights)
  return {
    empty,
    loosen: further.loosen.map((l) => ({ text: `Let the motion be free, and: ${l.text}`, gives: [free, ...l.gives] })),
  }
}
