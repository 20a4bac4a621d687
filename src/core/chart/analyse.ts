import { isDominant, isMinorTarget } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { bluesJobAt, bluesKey } from './blues.ts'
import { type Chain, chainsIn, chromaticHolds } from './chains.ts'
import { beatOf, type Chart, changesOf, type Key, keyName, usualBar } from './chart.ts'
import { type SpotInChart, spotsInChart } from './context.ts'
import { degreeIn, type Judged } from './dominants.ts'
import { functionAt } from './functions.ts'
import { heldDominants } from './held.ts'
import { type Form, type Hold, holdsOf, ticksOf } from './holds.ts'
import type { Job } from './job.ts'
import type { PlainKey } from './keys.ts'
import { type FormKeys, formKeys, type NamedFrom } from './local-keys.ts'
import { dominantVamp, MODAL_FROM_BARS, type ModalStretch, modalJobs, modalStretches, restsIn } from './modal.ts'
import { type Override, overrideAt, splitChart } from './overrides.ts'
import { reasonFor } from './reasons.ts'
import { turningHome } from './turning.ts'

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

/** A key's name as the chart spells it: by its header, by a chord on its tonic, else the usual way. */
const spelledKey = (key: PlainKey, chart: Chart, holds: readonly Hold[]): Key => {
  const said = [chart, ...chart.bars].find((b) => b.key?.tonic.pc === key.tonic)?.key
  if (said) return { ...said, mode: key.mode }
  const rooted = holds.filter((h) => h.chord.root.pc === key.tonic && h.chord.root.name.length < 3)
  const own = rooted.find((h) => (key.mode === 'minor') === isMinorTarget(h.chord) && !isDominant(h.chord))
  return { tonic: own?.chord.root ?? plainNote(pitchClass(key.tonic), key.mode === 'minor'), mode: key.mode }
}

/** Keys, and the jobs of what is modal. */
interface Ground extends FormKeys {
  readonly modal: readonly (readonly [number, Job])[]
}

const judge = (form: Form, { whole, at, modal: jobs }: Ground, blues: boolean): readonly Judged[] => {
  const slips = chromaticHolds(form)
  const modal = new Map(jobs)
  return form.holds.map((hold): Judged => {
    const inBlues = blues ? bluesJobAt(form, hold, whole) : null
    if (inBlues) return inBlues
    const slip = slips.get(hold.at)
    if (slip) return { job: { kind: slip }, resolves: slip === 'chromatic V' }
    const job = modal.get(hold.at)
    return job ? { job, resolves: false } : functionAt(form, hold, at)
  })
}

/** A job with whether its chord stands over a pedal. */
const standingOf = (job: Job, { overPedal }: SpotInChart): Job => (overPedal ? { ...job, overPedal } : job)

/** The key of a modal chart is what is rested on longest. */
const modalKey = (form: Form, stretches: readonly ModalStretch[]): PlainKey | null => {
  const longest = [...stretches].sort((a, b) => ticksOf(b.holds) - ticksOf(a.holds))[0]
  const mostly = ticksOf(stretches.flatMap((s) => s.holds)) * 2 > ticksOf(form.holds)
  return longest && mostly ? restsIn(longest) : null
}

const plainKey = ({ tonic, mode }: Key): PlainKey => ({ tonic: tonic.pc, mode })

/** The keys a chart names after its beginning, from the first chord of the bar that does. */
const namedLater = (form: Form, { bars }: Chart): readonly NamedFrom[] =>
  bars.flatMap((bar, i) => {
    const { key } = changesOf(bar, bars[i - 1])
    if (!key) return []
    const from = form.holds.findIndex((h) => (h.spots[0]?.spot.bar ?? 0) >= bar.number)
    return from >= 0 ? [{ from, key: plainKey(key) }] : []
  })

/** A blues keeps its key throughout; a modal chart is in what it rests on; else the keys the form has paid for. */
const keysOf = (form: Form, chart: Chart, bar: number, blues: PlainKey | null): Ground => {
  const named = chart.key && plainKey(chart.key)
  if (blues) {
    const key = named?.tonic === blues.tonic ? named : blues
    return { whole: key, at: form.holds.map(() => key), modal: [] }
  }
  const turning = turningHome(form, bar)
  const found = formKeys(form, bar, named ?? dominantVamp(form), namedLater(form, chart), turning)
  const stretches = modalStretches(form, found.at, bar)
  const at = [...found.at]
  for (const stretch of stretches)
    if (ticksOf(stretch.holds) >= MODAL_FROM_BARS * bar) for (const h of stretch.holds) at[h.at] = restsIn(stretch)
  return {
    whole: named ?? modalKey(form, stretches) ?? found.whole,
    at,
    modal: stretches.flatMap((s) => [...modalJobs(s, bar)]),
  }
}

const RESOLVING: ReadonlySet<Job['kind']> = new Set(['V', 'substitute V', 'deceptive V', 'delayed V', 'chromatic V'])

/**
 * Reads a chart's harmony: local keys by the cheapest path over the 24, a job for each chord with its reason, and the
 * chains they form. A job the player gives wins. Source: theory page, section 7.
 */
export const analyseChart = (chart: Chart, repeats: boolean, overrides: readonly Override[] = []): Analysis => {
  const plain = spotsInChart(splitChart(chart, overrides), repeats)
  const form: Form = { holds: holdsOf(plain), repeats }
  const bar = usualBar(chart)
  const blues = bluesKey(form, chart)
  const keys = keysOf(form, chart, bar, blues)
  const judged = judge(form, keys, blues !== null)
  const held = heldDominants(form, judged, bar)
  const spots: AnalysedSpot[] = plain.map((s) => ({
    ...s,
    job: s.spot.chord.kind === 'no chord' ? { kind: 'no chord' } : null,
    key: null,
    degree: null,
    resolves: false,
    reason: '',
    yours: false,
  }))
  const names = new Map<string, Key>()
  for (const hold of form.holds) {
    const key = keys.at[hold.at] as PlainKey
    const id = `${key.tonic} ${key.mode}`
    const named = names.get(id) ?? spelledKey(key, chart, form.holds)
    names.set(id, named)
    for (const s of hold.spots) {
      const { own, by, waits } = held.get(s.index) ?? { own: judged[hold.at] as Judged, by: hold, waits: false }
      const put = overrideAt(overrides, s.spot.bar, beatOf(s.spot))?.job ?? null
      spots[s.index] = {
        ...s,
        key: named,
        degree: degreeIn(key, hold.chord),
        job: put ?? (s.next === null && own.job.kind === 'static dominant' ? null : standingOf(own.job, s)),
        resolves: put ? RESOLVING.has(put.kind) : own.resolves,
        reason: put
          ? 'You say so.'
          : waits
            ? 'It is held, and only its last bar leads on.'
            : reasonFor(form, by, own, key, keyName(named)),
        yours: put !== null,
      }
    }
  }
  const whole = chart.key ?? spelledKey(keys.whole, chart, form.holds)
  return { key: whole, spots, chains: chainsIn(form, judged, bar) }
}
