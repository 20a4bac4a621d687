import type { HeardNote } from '../line/heard.ts'
import type { Overlay } from '../material/overlay.ts'
import { has } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeOverlay } from '../reading/home.ts'
import { readOver } from '../reading/read.ts'
import type { Weights } from '../reading/weights.ts'
import { beatAt, type Sounding, soundingAt, type Timeline } from '../time/timeline.ts'

/** What was to be played from a moment on, in ticks from the start of the form; null is the home scale. `wished` 0..100. */
export interface PlannedFrom {
  readonly from: number
  readonly overlay: Overlay | null
  readonly wished?: number | null
}

/** A stretch of the plan in one chorus, with what was played in it. */
export interface PlanStep {
  readonly from: number
  readonly to: number
  /** From 1. */
  readonly chorus: number
  readonly bar: number
  readonly beat: number
  readonly chord: string
  readonly overlay: Overlay | null
  readonly wished: number
  /** Whether it leads away from home: notes of it are not at home, two at least where it is not wished far out. */
  readonly isOut: boolean
  readonly notes: readonly HeardNote[]
  /** Of the time that was played: how much lies in the overlay, and in the home scale, 0..1; null where nothing was. */
  readonly inPlan: number | null
  readonly inHome: number | null
  /** Mean fade of what was played, by time; null where nothing was. */
  readonly fade: number | null
}

/** From this fade on one note that is not at home is heard as out. */
const OUT_FROM = 25

const wishedOver = (overlay: Overlay | null, { place }: Sounding, weights: Weights): number =>
  place ? readOver(overlay ?? homeOverlay(place.home.first), place, weights).fade : 0

/** How many of its notes are not at home, over the chord where they are most. */
const notesAway = (overlay: Overlay, from: number, to: number, timeline: Timeline): number =>
  Math.max(
    0,
    ...timeline.soundings.map(({ place, ...s }) =>
      place === null || s.to <= from || s.from >= to
        ? 0
        : overlay.notes.filter((n) => !has(place.home.inside, pitchClass(n.pc - place.chord.root.pc))).length,
    ),
  )

export const isInOverlay = (n: HeardNote, overlay: Overlay | null): boolean =>
  overlay === null ? n.inHome : has(overlay.set, pitchClass(n.pitch))

/** How long notes sound in all, in ticks. */
export const timeOf = (notes: readonly HeardNote[]): number => notes.reduce((sum, n) => sum + n.for, 0)

/** Of the time that was played, 0..1; null where nothing was. */
export const shareOf = (notes: readonly HeardNote[], which: (n: HeardNote) => boolean): number | null => {
  const all = timeOf(notes)
  return all === 0 ? null : timeOf(notes.filter(which)) / all
}

/** Mean fade by time; null where nothing was played. */
export const meanFade = (notes: readonly HeardNote[]): number | null => {
  const all = timeOf(notes)
  return all === 0 ? null : notes.reduce((sum, n) => sum + n.fade * n.for, 0) / all
}

/** A plan over as many choruses as were played, each step with the notes that begin in it. */
export const plannedSteps = (
  plan: readonly PlannedFrom[],
  notes: readonly HeardNote[],
  timeline: Timeline,
  weights: Weights,
): readonly PlanStep[] => {
  const { length, beat } = timeline
  const [first, last] = [notes[0], notes.at(-1)]
  if (plan.length === 0 || !first || !last || length === 0) return []
  const begin = Math.max(0, Math.floor(first.at / length))
  // A note or two on the first beat of another chorus end this one.
  const end = Math.floor(Math.max(0, last.at - beat * timeline.beatsInBar) / length)
  const choruses = Math.max(begin, end) - begin + 1
  const inOrder = [...plan].sort((a, b) => a.from - b.from)
  const steps: PlanStep[] = []
  let next = 0
  for (let chorus = 0; chorus < choruses; chorus++)
    for (const [i, { from, overlay, wished }] of inOrder.entries()) {
      const to = inOrder[i + 1]?.from ?? length
      const sounding = soundingAt(timeline, from)
      if (to <= from || !sounding) continue
      const start = (begin + chorus) * length
      while (next < notes.length && (notes[next] as HeardNote).at < start + from) next++
      const own: HeardNote[] = []
      for (; next < notes.length && (notes[next] as HeardNote).at < start + to; next++)
        own.push(notes[next] as HeardNote)
      const fade = meanFade(own)
      const wish = wished ?? wishedOver(overlay, sounding, weights)
      steps.push({
        ...{ from: start + from, to: start + to, chorus: begin + chorus + 1, overlay, wished: wish },
        ...{ bar: sounding.spot.spot.bar, beat: beatAt(from, sounding) },
        chord: sounding.spot.spot.chord.symbol,
        isOut: overlay !== null && notesAway(overlay, from, to, timeline) >= (wish >= OUT_FROM ? 1 : 2),
        notes: own,
        inPlan: shareOf(own, (n) => isInOverlay(n, overlay)),
        inHome: shareOf(own, (n) => n.inHome),
        fade: fade === null ? null : Math.round(fade),
      })
    }
  return steps
}
