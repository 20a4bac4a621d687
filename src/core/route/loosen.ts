import { membersOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { FAMILY_NAMES } from '../reading/candidates.ts'
import type { Weights } from '../reading/weights.ts'
import { planRoutes } from './plan.ts'
import type { RouteRules } from './rules.ts'
import type { Slot } from './slots.ts'
import { placings, stepCandidates } from './step-candidates.ts'

/** A way out where the rules allow no route: one rule, and how far it must give way. */
export interface Loosening {
  /** `allow a fade of 62 instead of 40`: ASCII. */
  readonly text: string
  readonly rules: RouteRules
}

export interface Impossible {
  /** Steps at which nothing at all is left. */
  readonly empty: readonly number[]
  readonly loosen: readonly Loosening[]
}

/** Whether any route keeps to the rules. */
function* isPossible(slots: readonly Slot[], rules: RouteRules, weights: Weights): Generator<number, boolean> {
  const routes = yield* planRoutes(slots, { ...rules, arc: [] }, weights, { best: 1, eachSeries: false })
  return routes.length > 0
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

const NAMES_OF_DEGREES = ['1', 'b9', '9', 'b3', '3', '11', 'b5', '5', 'b13', '13', 'b7', '7'] as const

/** Rules with one thing let go, and what to say of it. */
const letGo = (slots: readonly Slot[], rules: RouteRules): readonly Loosening[] => {
  const where = (step: number | null): string => {
    const slot = slots[step ?? -1]
    return slot ? `bar ${slot.bar}, ${slot.chord.symbol}` : 'everywhere'
  }
  const without = <T>(all: readonly T[], one: T): readonly T[] => all.filter((o) => o !== one)
  const { motion, scope } = rules
  const bound = motion.kind !== 'free' && motion.kind !== 'fewest'
  return [
    ...rules.locks.map((l) => ({
      text: `Take the lock off ${l.overlay.name} (${where(l.step)}).`,
      rules: { ...rules, locks: without(rules.locks, l) },
    })),
    ...rules.bans.map((b) => ({
      text: `Allow ${b.overlay?.name ?? b.device} again (${where(b.step)}).`,
      rules: { ...rules, bans: without(rules.bans, b) },
    })),
    ...membersOf(rules.hold).map((up) => ({
      text: `Do not ask for the ${NAMES_OF_DEGREES[up]} on every chord.`,
      rules: { ...rules, hold: (rules.hold & ~(1 << up)) as PcSet },
    })),
    ...membersOf(rules.avoid).map((up) => ({
      text: `Allow the ${NAMES_OF_DEGREES[up]}.`,
      rules: { ...rules, avoid: (rules.avoid & ~(1 << up)) as PcSet },
    })),
    ...(rules.windows.length > 0 ? [{ text: 'Let the recipe go.', rules: { ...rules, windows: [] } }] : []),
    ...(rules.loop ? [{ text: 'Do not join the last step to the first.', rules: { ...rules, loop: false } }] : []),
    ...(bound && scope === 'throughout'
      ? [{ text: 'Keep the motion within each cadence only.', rules: { ...rules, scope: 'cadence' as const } }]
      : []),
    ...(motion.kind === 'shape' && motion.by !== null
      ? [
          {
            text: 'Let the shape move by any constant.',
            rules: { ...rules, motion: { kind: 'shape', by: null } as const },
          },
        ]
      : []),
    ...(bound ? [{ text: 'Let the motion be free.', rules: { ...rules, motion: { kind: 'free' } as const } }] : []),
    ...FAMILY_NAMES.filter((f) => f !== 'pair' && !rules.families.includes(f)).map((f) => ({
      text: `Add the family ${f}.`,
      rules: { ...rules, families: [...rules.families, f] },
    })),
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
  const groups = placings(rules.families)
  const empty = slots.filter((s) => stepCandidates(s, null, rules, weights, groups).length === 0).map((s) => s.index)
  const found: Loosening[] = []
  for (const figure of FIGURES) {
    const now = rules[figure.of]
    const at = (n: number): RouteRules => ({ ...rules, [figure.of]: n })
    const enough = yield* nearest(now, figure.to, (n) => isPossible(slots, at(n), weights))
    if (enough !== null) found.push({ text: figure.text(enough, now), rules: at(enough) })
  }
  for (const one of letGo(slots, rules)) if (yield* isPossible(slots, one.rules, weights)) found.push(one)
  if (found.length > 0 || rules.motion.kind === 'free') return { empty, loosen: found }
  const free = yield* loosen(slots, { ...rules, motion: { kind: 'free' } }, weights)
  return { empty, loosen: free.loosen.map((l) => ({ ...l, text: `Let the motion be free, and: ${l.text}` })) }
}
