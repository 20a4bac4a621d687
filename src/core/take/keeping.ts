import { lastWhere } from '../grouped.ts'
import type { HeardNote } from '../line/heard.ts'
import { endOf } from '../line/line.ts'
import type { OutsideStretch } from '../line/outside.ts'
import { has } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import type { School } from '../reading/school.ts'
import type { Timeline } from '../time/timeline.ts'
import { isInOverlay, meanFade, type PlanStep } from './plan.ts'
import { isForeign, isHomeOnly, isSignOf, type Stay, shareIn, staysIn } from './stays.ts'

/** A stay as it was kept. */
export interface KeptStay {
  readonly kind: 'kept' | 'inside' | 'missed step'
  readonly stay: Stay
}
/** A border that was not kept: `late` in ticks after it, early below 0. */
export interface MissedBorder {
  readonly kind: 'early landing' | 'late landing' | 'overstay'
  readonly stay: Stay
  readonly late: number
}
/** A border that was kept, and whether anything answers what was outside. */
export interface KeptBorder {
  readonly kind: 'no landing' | 'landed'
  readonly stay: Stay
  readonly stretch: OutsideStretch
}
export type Kept = KeptStay | MissedBorder | KeptBorder

/** Less of what only the overlay explains is no leaving at all. */
const LEAST_OUT = 0.12
/** As much as this must lie where it was planned. */
const KEPT_FROM = 0.6
/** A wish for so much more fade than was played was not met. */
const TOO_LITTLE = 25

/** How a stay was kept from a moment to another: what was late or early is told by its borders. */
const howKept = (stay: Stay, from: number, to: number): KeptStay | null => {
  const own = stay.notes.filter((n) => n.at >= from && n.at < to)
  if (own.length < 2) return null
  const { isOut } = stay
  const foreign = shareIn(own, (n) => isForeign(n, stay))
  const inPlan = 1 - foreign - shareIn(own, (n) => isHomeOnly(n, stay))
  if (isOut) {
    const signs = shareIn(own, (n) => isSignOf(n, stay))
    const wished = Math.max(...stay.steps.map((s) => s.wished))
    const played = meanFade(own) ?? 0
    const isIn = foreign < 1 - KEPT_FROM && signs < LEAST_OUT && (inPlan < 1 || played < wished - TOO_LITTLE)
    if (isIn) return { kind: 'inside', stay }
  }
  const belongs = stay.overlay === null || isOut ? inPlan : Math.max(inPlan, 1 - foreign)
  return { kind: belongs >= KEPT_FROM ? 'kept' : 'missed step', stay }
}

/** So late is still on time, in beats. */
const ON_TIME = 0.9

/**
 * How long after the border one was still away: to the end of the last note that home does not explain, until two notes
 * follow each other that only home explains, or a rest. 0 where what was outside is over at the border.
 */
const stillAway = (before: Stay, after: readonly Stay[], timeline: Timeline): number => {
  let [late, atHome] = [0, 0]
  let last = before.notes.at(-1)
  for (const stay of after) {
    if (stay.isOut) break
    for (const n of stay.notes) {
      if (last && n.at - endOf(last) > timeline.beat) return late
      last = n
      const isAway = isForeign(n, stay)
      atHome = isAway || isInOverlay(n, before.overlay) ? 0 : atHome + 1
      if (atHome === HOME_AGAIN || (atHome > 0 && n.for >= timeline.beat)) return late
      if (isAway) late = endOf(n) - before.to
    }
  }
  return late
}
const HOME_AGAIN = 2

/** Whether what was played away after the border is still the overlay of before. */
const goesOnWith = (before: Stay, after: readonly Stay[], late: number): boolean => {
  const own = after.flatMap((s) => s.notes.filter((n) => n.at < before.to + late && isForeign(n, s)))
  return own.length > 0 && shareIn(own, (n) => isInOverlay(n, before.overlay)) >= 0.8
}

/** Whether a note of a stay outside is home already: here, or where the plan goes on. */
const isHomeAhead = (n: HeardNote, stay: Stay, next: Stay): boolean => {
  if (isInOverlay(n, stay.overlay)) return false
  const place = n.following?.place
  const ahead = next.overlay
    ? isInOverlay(n, next.overlay)
    : place !== null && place !== undefined && has(place.home.inside, pitchClass(n.pitch - place.chord.root.pc))
  return n.inHome || ahead
}

/** How long before the border one was home for good; 0 where one was out to the end, or never. */
const homeBefore = (stay: Stay, next: Stay): number => {
  const lastOut = lastWhere(stay.notes, (n) => isSignOf(n, stay))
  if (lastOut < 0) return 0
  const since = stay.notes.slice(lastOut + 1)
  const home = since.find((n) => isHomeAhead(n, stay, next))
  const all = since.every((n) => isHomeAhead(n, stay, next) || isInOverlay(n, stay.overlay))
  return home && since.length > 1 && all ? stay.to - home.at : 0
}

/** What only the overlay explains, where the ear hears it as the chord's own colour and the audit as no stretch. */
const signsOf = (stay: Stay): OutsideStretch | null => {
  const signs = stay.notes.filter((n) => isSignOf(n, stay))
  const [first, last] = [signs[0], signs.at(-1)]
  if (!first || !last) return null
  const fades = signs.map((n) => n.fade)
  const mean = Math.round(fades.reduce((a, b) => a + b, 0) / fades.length)
  return { from: first.n, to: last.n, peak: Math.max(...fades), mean, landing: null }
}

/** A note at home within two beats after the stay. */
const isFollowed = (stay: Stay, notes: readonly HeardNote[], { beat }: Timeline): boolean =>
  notes.some((n) => n.at >= stay.to && n.at <= stay.to + 2 * beat && n.inHome)

const stretchAt = (
  stay: Stay,
  stretches: readonly OutsideStretch[],
  notes: readonly HeardNote[],
): OutsideStretch | null =>
  stretches[
    lastWhere(
      stretches,
      (s) => (notes[s.from] as HeardNote).at < stay.to && endOf(notes[s.to] as HeardNote) > stay.from,
    )
  ] ?? null

/** Over the border by a step, or held, to a tone of the chord. */
const stepsOver = (stay: Stay, notes: readonly HeardNote[], timeline: Timeline): boolean => {
  const i = notes.findIndex((n) => n.at >= stay.to)
  if (i < 0 || (notes[i] as HeardNote).at - stay.to > timeline.beat) return false
  return [i, i + 1].some((k) => {
    const [last, first] = [notes[k - 1], notes[k]]
    const near = last && first && Math.abs(first.pitch - last.pitch) <= 2 && first.at - endOf(last) <= timeline.beat
    return near === true && first?.role === 'chord'
  })
}

const isAnswered = ({ landing }: OutsideStretch, { wayHome: way }: School, byStep: boolean): boolean =>
  byStep || (landing !== null && (landing.how !== 'cut' || way === 'angular'))

/** How a stay outside came home; `late` is how long after its end one was still away. */
const wayHome = (
  stay: Stay,
  after: readonly Stay[],
  late: number,
  early: number,
  landing: () => KeptBorder | null,
  timeline: Timeline,
): MissedBorder | KeptBorder | null => {
  const bar = timeline.beat * timeline.beatsInBar
  const next = after[0]
  if (late >= ON_TIME * timeline.beat) {
    const whole = Math.min(bar, next ? Math.max(2 * timeline.beat, next.to - next.from) : bar)
    if (late >= whole - timeline.beat / 2 && goesOnWith(stay, after, late)) return { kind: 'overstay', stay, late }
    if (late < bar - timeline.beat / 2) return { kind: 'late landing', stay, late }
    return null
  }
  return early > 0 ? { kind: 'early landing', stay, late: -early } : landing()
}

/** Every stay of the plan as it was kept, and each way home. Source: practice page, reading a take. */
export const keptPlan = (
  steps: readonly PlanStep[],
  notes: readonly HeardNote[],
  stretches: readonly OutsideStretch[],
  school: School,
  timeline: Timeline,
): readonly Kept[] => {
  const stays = staysIn(steps)
  let awayUntil = Number.NEGATIVE_INFINITY
  return stays.flatMap((stay, i): readonly Kept[] => {
    const after = stays.slice(i + 1)
    const comesHome = stay.isOut && !after[0]?.isOut
    const before = comesHome && after[0] ? homeBefore(stay, after[0]) : 0
    const early = before >= ON_TIME * timeline.beat ? before : 0
    const own = howKept(stay, awayUntil, stay.to - early)
    if (!comesHome || own?.kind === 'inside' || own?.kind === 'missed step') return own ? [own] : []
    const landing = (): KeptBorder | null => {
      const stretch = stretchAt(stay, stretches, notes)
      const signs = stretch ? null : signsOf(stay)
      if (signs && after[0] && !isFollowed(stay, notes, timeline)) return { kind: 'no landing', stay, stretch: signs }
      if (!stretch) return null
      return {
        kind: isAnswered(stretch, school, stepsOver(stay, notes, timeline)) ? 'landed' : 'no landing',
        stay,
        stretch,
      }
    }
    const late = after[0] ? stillAway(stay, after, timeline) : 0
    const home = wayHome(stay, after, late, early, landing, timeline)
    if (home && 'late' in home && home.late > 0) awayUntil = stay.to + home.late
    return [...(own ? [own] : []), ...(home ? [home] : [])]
  })
}
