import type { Overlay } from '../material/overlay.ts'
import type { PcSet } from '../pitch/units.ts'
import type { Weights } from '../reading/weights.ts'
import {
  type ChainWish,
  keptOn,
  keptPrice,
  type Layer,
  type Level,
  levelOf,
  NO_DEVICE,
  numbering,
  runAfter,
  seriesNumbers,
} from './best-chains.ts'
import { addTerms, NO_TERMS, ROUTE_COSTS, type Terms, totalOf } from './costs.ts'
import { cheapestChains, costsAhead, NEVER } from './deepening.ts'
import type { Device } from './device.ts'
import { bestLoops, cheapest } from './loop-chains.ts'
import type { Motion, RouteRules } from './rules.ts'
import { type SeamRule, seamRule } from './seam-rules.ts'
import type { Chain } from './shortlist.ts'
import type { Slot } from './slots.ts'
import { offerOf, type StepCandidate, stepCandidates } from './step-candidates.ts'

/** One step of a route, with what it adds to each term; `motion` is that of the seam that leads to it. */
export interface RouteStep {
  readonly slot: Slot
  readonly overlay: Overlay
  readonly device: Device
  readonly fade: number
  readonly landing: number | null
  readonly wished: number | null
  readonly terms: Terms
}

export interface Route {
  readonly steps: readonly RouteStep[]
  readonly terms: Terms
  readonly total: number
  /** The rule it was found under: of a shape that moves by any constant, which one. */
  readonly motion: Motion
}

export interface RouteWish {
  /** How many routes, the best first. */
  readonly best: number
  /** Only the best of each series of colour devices. */
  readonly eachSeries: boolean
}

const CONSTANTS = [1, -1, 2, -2, 3, -3, 4, -4, 5, -5, 6] as const
const motionsTried = (motion: Motion): readonly Motion[] =>
  motion.kind === 'shape' && motion.by === null ? CONSTANTS.map((by) => ({ kind: 'shape', by })) : [motion]

/** What each slot could carry, in order, under the rules; yields after each slot. */
function* levelsOf(slots: readonly Slot[], rules: RouteRules, weights: Weights): Generator<number, readonly Level[]> {
  const number = numbering()
  const offer = offerOf(rules.families)
  const levels: Level[] = []
  for (const [i, slot] of slots.entries()) {
    const candidates = stepCandidates(slot, levels.at(-1)?.candidates ?? null, rules, weights, offer)
    levels.push(levelOf(slot, slots[i - 1] ?? null, candidates, number))
    yield 0
  }
  return levels
}

const layersUnder = (levels: readonly Level[], motion: Motion, rules: RouteRules): readonly Layer[] =>
  levels.map((level, i) => ({ ...level, seam: seamRule(levels[i - 1]?.slot ?? level.slot, level.slot, motion, rules) }))

/** Where one shape moves, its coming again is the point. */
const repeatsCount = (rules: RouteRules): boolean => rules.motion.kind !== 'shape'

/** Where no arc is given and no shape is moved, one overlay kept on is a trick repeated. */
const keptCounts = (rules: RouteRules): boolean => rules.usual && repeatsCount(rules)

/** The places of a chain's steps among their layers' candidates. */
const pathOf = (chain: Chain): readonly number[] => {
  const path: number[] = []
  for (let c: Chain | null = chain; c; c = c.from) path.push(c.at)
  return path.reverse()
}

/** Spells out a chain. The seam that closes a loop is told at the first step, to which it leads. */
const stepsOf = (
  layers: readonly Layer[],
  path: readonly number[],
  rules: RouteRules,
  closing: SeamRule | null,
): readonly RouteStep[] => {
  const lastSet = layers.at(-1)?.sets[path.at(-1) as number] as PcSet
  let last: number = NO_DEVICE
  let run = 1
  return layers.map((layer, i): RouteStep => {
    const at = path[i] as number
    const candidate = layer.candidates[at] as StepCandidate
    const [from, p] = [layers[i - 1], path[i - 1] as number]
    const device = layer.devices[at] as number
    const anew = device !== NO_DEVICE && !(from && keptOn(from, p, layer, at))
    const kept = from && keptCounts(rules) ? keptPrice(run, from, p, layer, at) : 0
    if (from) run = runAfter(run, from, p, layer, at)
    const repeats = kept + (repeatsCount(rules) && anew && device === last ? ROUTE_COSTS.repeat : 0)
    if (device !== NO_DEVICE) last = device
    return {
      slot: layer.slot,
      overlay: candidate.overlay(),
      device: candidate.device(),
      fade: candidate.fade,
      landing: candidate.landing,
      wished: rules.arc[i] ?? null,
      terms: {
        arcMiss: candidate.arcMiss,
        landingMiss: candidate.landingMiss,
        motion: from
          ? layer.seam.cost(from.sets[p] as PcSet, candidate.set)
          : closing
            ? closing.cost(lastSet, candidate.set)
            : 0,
        repeats,
        rubs: candidate.rubCost,
      },
    }
  })
}

interface Found {
  readonly cost: number
  readonly series: number
  /** What it lays where: two constants can lead to the same sets. */
  readonly key: string
  readonly route: () => Route
}

const foundIn = (
  chain: Chain,
  layers: readonly Layer[],
  motion: Motion,
  rules: RouteRules,
  closing: SeamRule | null,
): Found => {
  const path = pathOf(chain)
  const route = (): Route => {
    const steps = stepsOf(layers, path, rules, closing)
    const terms = steps.reduce((sum, s) => addTerms(sum, s.terms), NO_TERMS)
    return { steps, terms, total: totalOf(terms), motion }
  }
  return { cost: chain.cost, series: chain.series, key: path.join(), route }
}

/**
 * The best routes through the slots, exactly, the cheapest first; none where the rules allow none. A generator: each
 * `next` does a short piece of the work and yields the share done. Source: theory page, section 8.
 */
export function* planRoutes(
  slots: readonly Slot[],
  rules: RouteRules,
  weights: Weights,
  { best, eachSeries }: RouteWish,
): Generator<number, readonly Route[]> {
  if (slots.length === 0) return []
  const levels = yield* levelsOf(slots, rules, weights)
  const motions = motionsTried(rules.motion)
  const wish: ChainWish = {
    best,
    eachSeries,
    repeatsCount: repeatsCount(rules),
    keptCounts: keptCounts(rules),
    bound: NEVER,
    ahead: [],
    first: null,
    grown: seriesNumbers(),
  }
  let found: readonly Found[] = []
  for (const [n, motion] of motions.entries()) {
    const layers = layersUnder(levels, motion, rules)
    const bound = found.length === best ? (found.at(-1)?.cost ?? NEVER) : NEVER
    const limited = { ...wish, bound }
    const closing =
      rules.loop && slots.length > 1 ? seamRule(slots.at(-1) as Slot, slots[0] as Slot, motion, rules) : null
    const run = closing ? bestLoops(layers, closing, limited) : cheapestChains(layers, limited)
    let next = run.next()
    for (; !next.done; next = run.next()) yield (n + next.value) / motions.length
    const more = next.value.map((chain): Found => foundIn(chain, layers, motion, rules, closing))
    const told = new Set(found.map((f) => f.key))
    found = cheapest([...found, ...more.filter((f) => !told.has(f.key))], wish)
  }
  return found.map((f) => f.route())
}

/** Whether any route keeps to the rules: sooner known than which is the best. */
export function* isPossible(slots: readonly Slot[], rules: RouteRules, weights: Weights): Generator<number, boolean> {
  if (rules.loop) return (yield* planRoutes(slots, rules, weights, { best: 1, eachSeries: false })).length > 0
  const levels = yield* levelsOf(slots, rules, weights)
  for (const motion of motionsTried(rules.motion)) {
    const ahead = yield* costsAhead(layersUnder(levels, motion, rules))
    if (ahead[0]?.some((cost) => cost < NEVER)) return true
  }
  return false
}
