import { type HeardNote, isChordTone, isParted, stepTo } from './heard.ts'
import { endOf } from './line.ts'
import type { Figure, Melodic } from './melodic.ts'
import type { Timeline } from './timeline.ts'

export const LANDING_HOWS = [
  'held',
  'half step down',
  'half step up',
  'whole step down',
  'whole step up',
  'enclosure',
  'cut',
] as const

/** How an outside stretch comes home: on which note, and how long after it ended. */
export interface Landed {
  readonly how: (typeof LANDING_HOWS)[number]
  readonly on: number
  readonly afterBeats: number
}

/** A stretch away from home; `landing` is null where it is not resolved within the window. */
export interface OutsideStretch {
  readonly from: number
  readonly to: number
  /** Highest and mean fade. */
  readonly peak: number
  readonly mean: number
  readonly landing: Landed | null
}

/** Within so many beats after a stretch a landing still answers it. */
const WINDOW_BEATS = 2
/** A shorter run of notes that only lead to the next one is ornament, no stretch. */
const LEAST_ORNAMENT = 4

const isAway = (n: HeardNote): boolean => n.role === 'outside' || n.role === 'altered'

const HOW: Readonly<Record<number, Landed['how']>> = {
  0: 'held',
  [-1]: 'half step down',
  1: 'half step up',
  [-2]: 'whole step down',
  2: 'whole step up',
}

/** Runs of notes that are away, an inside note between two of them passed over. */
const runs = (notes: readonly HeardNote[], timeline: Timeline): readonly (readonly [number, number])[] => {
  const found: [number, number][] = []
  for (const [i, n] of notes.entries()) {
    if (!isAway(n)) continue
    const last = found.at(-1)
    const between = last ? notes.slice(last[1] + 1, i) : []
    const goesOn =
      last !== undefined &&
      between.length <= 1 &&
      between.every((b) => b.for <= n.for && !(b.strong && isChordTone(b))) &&
      !notes.slice(last[1], i).some((b, k) => isParted(b, notes[last[1] + k + 1] as HeardNote, timeline))
    if (last && goesOn) last[1] = i
    else found.push([i, i])
  }
  return found
}

const landingOf = (
  notes: readonly HeardNote[],
  to: number,
  figures: readonly Figure[],
  timeline: Timeline,
): Landed | null => {
  const last = notes[to] as HeardNote
  const window = endOf(last) + WINDOW_BEATS * timeline.beat
  for (let i = to + 1; i < notes.length; i++) {
    const n = notes[i] as HeardNote
    if (n.at > window) return null
    if (!isChordTone(n)) continue
    const afterBeats = Math.max(0, Math.round(((n.at - endOf(last)) / timeline.beat) * 100) / 100)
    const enclosed = figures.some((f) => f.kind === 'enclosure' && f.to === i && f.from <= to + 1)
    const how = enclosed ? 'enclosure' : i === to + 1 ? HOW[stepTo(last, n)] : HOW[stepTo(notes[i - 1] as HeardNote, n)]
    return { how: how ?? 'cut', on: i, afterBeats }
  }
  return null
}

/**
 * Where a line leaves home, how far and how long, and how it lands. Approach notes and enclosures by themselves are no
 * stretches. A note held over into a chord that holds it lands as held. Source: theory page, section 9.
 */
export const outsideStretches = (
  notes: readonly HeardNote[],
  jobs: readonly (Melodic | null)[],
  figures: readonly Figure[],
  timeline: Timeline,
): readonly OutsideStretch[] =>
  runs(notes, timeline)
    .filter(([from, to]) => {
      const run = notes.slice(from, to + 1)
      const ornament = run.every((_, i) => jobs[from + i] !== null)
      return !ornament || run.length >= LEAST_ORNAMENT
    })
    .map(([from, to]) => {
      const fades = notes.slice(from, to + 1).map((n) => n.fade)
      return {
        from,
        to,
        peak: Math.max(...fades),
        mean: Math.round(fades.reduce((a, b) => a + b, 0) / fades.length),
        landing: landingOf(notes, to, figures, timeline),
      }
    })
