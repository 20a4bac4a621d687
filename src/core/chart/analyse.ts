import { type Chord, isDominant, isMinorTarget } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { type Chain, chainsIn, chromaticHolds } from './chains.ts'
import { barTicks, beatOf, type Chart, type Key, keyName } from './chart.ts'
import { type SpotInChart, spotsInChart } from './context.ts'
import { degreeIn, type Judged } from './dominants.ts'
import { functionAt } from './functions.ts'
import { canBeII, type Form, goalOf, type Hold, holdsOf, upTo } from './holds.ts'
import type { Job } from './job.ts'
import { keyPath, kindOf, type OnPath, type PlainKey } from './keys.ts'
import { type Override, overrideAt, splitChart } from './overrides.ts'
import { reasonFor } from './reasons.ts'

/** A spot with its local key, its degree there, what it does and why. All null on `N.C.`; `resolves` is for dominants. */
export interface AnalysedSpot extends SpotInChart {
  /** Null where a dominant's next chord is not known. */
  readonly job: Job | null
  readonly key: Key | null
  readonly degree: string | null
  readonly resolves: boolean
  readonly reason: string
  /** Whether the player put the job here. */
  readonly yours: boolean
}

export interface Analysis {
  /** The key the chart names, else the one found on the whole. */
  readonly key: Key
  readonly spots: readonly AnalysedSpot[]
  readonly chains: readonly Chain[]
}

/** The key a cadence points to: of a ii and its V, and of the chord they reach. */
const pointsAt = (form: Form, hold: Hold): PlainKey | null => {
  const dominant = isDominant(hold.chord) ? hold : canBeII(hold.chord) ? goalOf(form, hold) : null
  if (!dominant || !isDominant(dominant.chord)) return null
  const [ii, goal] = [dominant === hold ? null : hold, goalOf(form, dominant)]
  if (ii && upTo(ii.chord, dominant.chord) !== 5) return null
  if (!goal || isDominant(goal.chord) || upTo(dominant.chord, goal.chord) !== 5) return null
  return { tonic: goal.chord.root.pc, mode: isMinorTarget(goal.chord) ? 'minor' : 'major' }
}

const onPath = (form: Form, metre: Chart['metre']): readonly OnPath[] =>
  form.holds.map((hold) => {
    const own = pointsAt(form, hold)
    const before = form.holds[hold.at - 1]
    const reached = before && isDominant(before.chord) && !own ? pointsAt(form, before) : null
    return {
      chord: hold.chord,
      weight: Math.min(4, Math.max(0.6, hold.ticks / barTicks(metre))),
      points: own ?? reached,
    }
  })

/** A key's name as the chart spells it: by its header, by a chord on its tonic, else the usual way. */
const spelledKey = (key: PlainKey, chart: Chart, holds: readonly Hold[]): Key => {
  if (chart.key?.tonic.pc === key.tonic) return { ...chart.key, mode: key.mode }
  const rooted = holds.filter((h) => h.chord.root.pc === key.tonic && h.chord.root.name.length < 3)
  const own = rooted.find((h) => (key.mode === 'minor') === isMinorTarget(h.chord) && !isDominant(h.chord))
  return { tonic: own?.chord.root ?? plainNote(pitchClass(key.tonic), key.mode === 'minor'), mode: key.mode }
}

const MODAL_FROM_BARS = 4

/** Stretches of one key without any dominant, on a chord that is no major or minor at rest: places to stay in. */
const modalHolds = (form: Form, keys: readonly PlainKey[], bar: number): ReadonlySet<number> => {
  const modal = new Set<number>()
  for (let from = 0; from < form.holds.length; ) {
    let to = from
    while (to < form.holds.length && keys[to] === keys[from]) to++
    const inside = form.holds.slice(from, to)
    const ticks = inside.reduce((sum, h) => sum + h.ticks, 0)
    const [longest] = [...inside].sort((a, b) => b.ticks - a.ticks)
    const leads = inside.some((h) => h.chord.family === 'dominant' || h.chord.family === 'diminished')
    const rests = longest && (kindOf(longest.chord) === 'm7' || isOpen(longest.chord))
    if (!leads && rests && ticks >= MODAL_FROM_BARS * bar) for (const h of inside) modal.add(h.at)
    from = to
  }
  return modal
}

const isOpen = (chord: Chord): boolean =>
  chord.family === 'suspended' || chord.family === 'power' || chord.quality.recipe.tensions.includes('#11')

const judge = (form: Form, keys: readonly PlainKey[], bar: number): readonly Judged[] => {
  const slips = chromaticHolds(form)
  const modal = modalHolds(form, keys, bar)
  return form.holds.map((hold): Judged => {
    const slip = slips.get(hold.at)
    if (slip) return { job: { kind: slip }, resolves: slip === 'chromatic V' }
    return modal.has(hold.at) ? { job: { kind: 'modal' }, resolves: false } : functionAt(form, hold, keys)
  })
}

/** A blues says its key by its first chord: a dominant at rest, with the dominants on its 4 and 5 about it. */
const bluesKey = ({ holds }: Form): PlainKey | null => {
  const [first] = holds
  const on = (up: number) => holds.some((h) => first && upTo(first.chord, h.chord) === up && isDominant(h.chord))
  const isBlues = first?.chord.family === 'dominant' && on(5) && on(7)
  const dominants = holds.filter((h) => isDominant(h.chord)).reduce((sum, h) => sum + h.ticks, 0)
  const all = holds.reduce((sum, h) => sum + h.ticks, 0)
  return isBlues && dominants * 2 > all ? { tonic: first.chord.root.pc, mode: 'major' } : null
}

const wholeKey = (keys: readonly PlainKey[], holds: readonly Hold[]): PlainKey => {
  const weights = new Map<PlainKey, number>()
  for (const h of holds) {
    const key = keys[h.at] as PlainKey
    weights.set(key, (weights.get(key) ?? 0) + h.ticks)
  }
  return [...weights].sort(([, a], [, b]) => b - a)[0]?.[0] ?? { tonic: 0, mode: 'major' }
}

const STAYS: Job = { kind: 'static dominant' }

/**
 * Reads a chart's harmony: local keys by the cheapest path over the 24, a job for each chord with its reason, and the
 * chains they form. A job the player gives wins. Source: theory page, section 7.
 */
export const analyseChart = (chart: Chart, repeats: boolean, overrides: readonly Override[] = []): Analysis => {
  const plain = spotsInChart(splitChart(chart, overrides), repeats)
  const form: Form = { holds: holdsOf(plain), repeats }
  const home = chart.key ? { tonic: chart.key.tonic.pc, mode: chart.key.mode } : bluesKey(form)
  const keys = keyPath(onPath(form, chart.metre), home)
  const judged = judge(form, keys, barTicks(chart.metre))
  const spots: AnalysedSpot[] = plain.map((s) => ({
    ...s,
    job: s.spot.chord.kind === 'no chord' ? { kind: 'no chord' } : null,
    key: null,
    degree: null,
    resolves: false,
    reason: '',
    yours: false,
  }))
  const names = new Map<PlainKey, Key>()
  for (const hold of form.holds) {
    const [key, found] = [keys[hold.at] as PlainKey, judged[hold.at] as Judged]
    const named = names.get(key) ?? spelledKey(key, chart, form.holds)
    names.set(key, named)
    for (const s of hold.spots) {
      const isLast = s === hold.spots.at(-1)
      const waits = hold.chord.family === 'dominant' && !isLast
      const own = waits ? { job: STAYS, resolves: false } : found
      const put = overrideAt(overrides, s.spot.bar, beatOf(s.spot, chart.metre))?.job ?? null
      spots[s.index] = {
        ...s,
        key: named,
        degree: degreeIn(key, hold.chord),
        job: put ?? (s.next === null && own.job.kind === 'static dominant' ? null : own.job),
        resolves: put ? /V$/.test(put.kind) && put.kind !== 'backdoor V' : own.resolves,
        reason: put
          ? 'You say so.'
          : waits
            ? 'It is held, and only its last bar leads on.'
            : reasonFor(form, hold, own, key, keyName(named)),
        yours: put !== null,
      }
    }
  }
  const whole = chart.key ?? spelledKey(wholeKey(keys, form.holds), chart, form.holds)
  return { key: whole, spots, chains: chainsIn(form, judged) }
}
