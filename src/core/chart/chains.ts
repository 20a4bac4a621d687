import { isDominant } from '../chord/chord.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Judged } from './dominants.ts'
import { pairsOfII } from './functions.ts'
import { canBeII, type Form, goalOf, type Hold, upTo } from './holds.ts'
import { nameOf } from './job.ts'
import { turningChains } from './turning.ts'

export const CHAIN_KINDS = [
  'ii-V-I',
  'ii-V without its tonic',
  'static ii-V',
  'chromatic ii-Vs',
  'backdoor',
  'cycle of dominants',
  'ii-subV-I',
  'turnaround',
  'major-third cycle',
  'minor-third cycle',
  'line cliche',
] as const

/** Chords that belong together. `target` is where they lead, null where they stay. */
export interface Chain {
  readonly kind: (typeof CHAIN_KINDS)[number]
  readonly from: Hold
  readonly to: Hold
  readonly target: string | null
}

type Pair = readonly [ii: Hold, v: Hold]

/** Runs of ii–V pairs that follow each other, each a semitone below the one before. */
const chromaticRuns = (form: Form): readonly (readonly Pair[])[] => {
  const runs: Pair[][] = []
  for (const pair of pairsOfII(form)) {
    const run = runs.at(-1)
    const [, v] = run?.at(-1) ?? []
    const follows = v && goalOf(form, v)?.at === pair[0].at && upTo(v.chord, pair[1].chord) === 11
    if (run && follows) run.push(pair)
    else runs.push([pair])
  }
  return runs.filter((r) => r.length > 1)
}

/** The chords of those runs that are heard as a slip of what follows: all pairs but the last. */
export const chromaticHolds = (form: Form): ReadonlyMap<number, 'chromatic ii' | 'chromatic V'> =>
  new Map(
    chromaticRuns(form).flatMap((run) =>
      run.slice(0, -1).flatMap(([ii, v]) => [[ii.at, 'chromatic ii'] as const, [v.at, 'chromatic V'] as const]),
    ),
  )

const promisedBy = (ii: Judged | undefined): string | null => (ii && 'of' in ii.job ? ii.job.of : null)

const pairChain = (form: Form, [from, v]: Pair, judged: readonly Judged[]): Chain => {
  const { job, resolves } = judged[v.at] as Judged
  const goal = goalOf(form, v)
  if (job.kind === 'backdoor V') return { kind: 'backdoor', from, to: goal ?? v, target: job.of }
  if (job.kind === 'static dominant' && goal?.chord.symbol === from.chord.symbol)
    return { kind: 'static ii-V', from, to: v, target: null }
  const target = 'of' in job ? job.of : promisedBy(judged[from.at])
  const arrives = resolves && job.kind !== 'deceptive V' && goal !== null && goal.at > v.at
  return arrives ? { kind: 'ii-V-I', from, to: goal, target } : { kind: 'ii-V without its tonic', from, to: v, target }
}

const dominantRuns = (form: Form, judged: readonly Judged[]): readonly Chain[] => {
  const runs: Hold[][] = []
  const leads = (h: Hold): boolean => isDominant(h.chord) && !judged[h.at]?.job.kind.startsWith('blues')
  for (const hold of form.holds.filter(leads)) {
    const run = runs.at(-1)
    const last = run?.at(-1)
    const goal = last && goalOf(form, last)
    const up = last ? upTo(last.chord, hold.chord) : 0
    if (run && goal?.at === hold.at && hold.at > (last?.at ?? 0) && (up === 5 || up === 11)) run.push(hold)
    else runs.push([hold])
  }
  return runs
    .filter((r) => r.length > 2)
    .map((r) => {
      const [from, to] = [r[0] as Hold, r.at(-1) as Hold]
      const goal = goalOf(form, to)
      const lands = goal && [5, 11].includes(pitchClass(goal.chord.root.pc - to.chord.root.pc))
      return { kind: 'cycle of dominants', from, to, target: lands ? nameOf(goal.chord) : null }
    })
}

/** A ii–V that swings is one chain, however often it comes round. */
const joinedStatic = (chains: readonly Chain[]): readonly Chain[] => {
  const joined: Chain[] = []
  for (const chain of chains) {
    const last = joined.at(-1)
    const swings = last?.kind === 'static ii-V' && last.to.at + 1 === chain.from.at
    if (last && swings && last.from.chord.symbol === chain.from.chord.symbol && chain.kind === 'static ii-V')
      joined[joined.length - 1] = { ...last, to: chain.to }
    else joined.push(chain)
  }
  return joined
}

/** A ii before a plain substitute, a half step above it, and the chord both lead to. */
const substituteChains = (form: Form, judged: readonly Judged[]): readonly Chain[] =>
  form.holds.flatMap((from): readonly Chain[] => {
    const [v, goal] = [form.holds[from.at + 1], form.holds[from.at + 2]]
    const job = v && judged[v.at]?.job
    const isOne = v && goal && canBeII(from.chord) && job?.kind === 'substitute V' && upTo(from.chord, v.chord) === 11
    return isOne ? [{ kind: 'ii-subV-I', from, to: goal, target: job.of }] : []
  })

/** The chains of a form in order: cadences by twos and threes, ii–Vs that slip down, dominants that lead to each other, turnarounds, cycles of thirds. */
export const chainsIn = (form: Form, judged: readonly Judged[], bar: number): readonly Chain[] => {
  const runs = chromaticRuns(form)
  const slipping = new Set(runs.flatMap((r) => r.slice(0, -1).map(([ii]) => ii.at)))
  const slips = runs.map((r): Chain => {
    const [first, last] = [r[0] as Pair, r.at(-1) as Pair]
    const { job } = judged[last[1].at] as Judged
    return { kind: 'chromatic ii-Vs', from: first[0], to: last[1], target: 'of' in job ? job.of : null }
  })
  const pairs = pairsOfII(form).filter(([ii]) => !slipping.has(ii.at))
  const cadences = joinedStatic(pairs.map((p) => pairChain(form, p, judged)))
  const others = [...dominantRuns(form, judged), ...substituteChains(form, judged), ...turningChains(form, judged, bar)]
  return [...slips, ...cadences, ...others].sort((a, b) => a.from.at - b.from.at)
}
