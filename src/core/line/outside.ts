import type { Job } from '../chart/job.ts'
import { materialNamed } from '../material/material.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Sounding, Timeline } from '../time/timeline.ts'
import { type HeardNote, isChordTone, isParted, stepTo } from './heard.ts'
import { endOf } from './line.ts'
import type { Figure, Melodic } from './melodic.ts'

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

/** A dominant on its way to the next chord. */
const goesHome = (s: Sounding | null): boolean => {
  const job = s?.place?.job
  return job !== undefined && job !== null && GOING_HOME.has(job.kind) && s?.place?.chord.family === 'dominant'
}
const GOING_HOME: ReadonlySet<Job['kind']> = new Set([
  'V',
  'substitute V',
  'deceptive V',
  'delayed V',
  'chromatic V',
  'blues V',
])

const sameSpan = (a: HeardNote, b: HeardNote): boolean => a.sounding?.from === b.sounding?.from

/** The sounds of a dominant going home, from its root: its altered tensions there are colour. */
const COLOURS = ['altered', 'half-whole', 'phrygian dominant'] as const
const COLOUR_SETS = COLOURS.map((name) => materialNamed(name).set)

/**
 * Whether altered notes over a dominant going home are its colour: what is played there lies in one of its own sounds,
 * or at least nothing of it is outside. Notes that only lead are left out.
 */
const colouredSpans = (notes: readonly HeardNote[], jobs: readonly (Melodic | null)[]): ReadonlySet<number> => {
  const sets = new Map<number, { set: number; outside: boolean }>()
  for (const [i, n] of notes.entries()) {
    if (!n.sounding?.place || !goesHome(n.sounding) || jobs[i]) continue
    const span = sets.get(n.sounding.from) ?? { set: 0, outside: false }
    span.set |= 1 << pitchClass(n.pitch - n.sounding.place.chord.root.pc)
    span.outside ||= n.role === 'outside'
    sets.set(n.sounding.from, span)
  }
  const coloured = [...sets].filter(([, { set, outside }]) => !outside || COLOUR_SETS.some((c) => (set & c) === set))
  return new Set(coloured.map(([from]) => from))
}

/**
 * Whether a note is away from home: outside, or altered and neither at home nor stated, unless it is colour. A blue note
 * is never away.
 */
const awayNotes = (notes: readonly HeardNote[], jobs: readonly (Melodic | null)[]): readonly boolean[] => {
  const coloured = colouredSpans(notes, jobs)
  return notes.map((n) => {
    if (n.blue) return false
    const colour = goesHome(n.sounding) && coloured.has(n.sounding?.from ?? -1)
    return n.role === 'outside'
      ? !colour || !isColourNote(n)
      : n.role === 'altered' && !n.inHome && !n.stated && !colour
  })
}

/** Whether a note lies in any of the sounds a dominant has on its way home. */
const isColourNote = (n: HeardNote): boolean => {
  const root = n.sounding?.place?.chord.root.pc ?? 0
  return COLOUR_SETS.some((c) => (c >> pitchClass(n.pitch - root)) & 1)
}

const HOW: Readonly<Record<number, Landed['how']>> = {
  0: 'held',
  [-1]: 'half step down',
  1: 'half step up',
  [-2]: 'whole step down',
  2: 'whole step up',
}

/** Runs of notes that are away, an inside note between two of them passed over. */
const runs = (
  notes: readonly HeardNote[],
  away: readonly boolean[],
  timeline: Timeline,
): readonly (readonly [number, number])[] => {
  const found: [number, number][] = []
  for (const [i, n] of notes.entries()) {
    if (!away[i]) continue
    const last = found.at(-1)
    const between = last ? notes.slice(last[1] + 1, i) : []
    // Over a dominant that goes home a stretch ends where the next chord begins.
    const ended = last && goesHome((notes[last[1]] as HeardNote).sounding) && !sameSpan(notes[last[1]] as HeardNote, n)
    const goesOn =
      last !== undefined &&
      !ended &&
      between.length <= 1 &&
      between.every((b) => b.for <= n.for && !(b.strong && isChordTone(b))) &&
      !notes.slice(last[1], i).some((b, k) => isParted(b, notes[last[1] + k + 1] as HeardNote, timeline))
    if (last && goesOn) last[1] = i
    else found.push([i, i])
  }
  return found
}

/** Whether a line goes from one note to another by steps only. */
const goesByStep = (notes: readonly HeardNote[], from: number, to: number): boolean =>
  notes.slice(from, to).every((n, k) => Math.abs(stepTo(n, notes[from + k + 1] as HeardNote)) <= 2)

/** A leap lands where a voice of the stretch's last beat lies a half step from where it leaps to, or sounds there already. */
const voiceLeadingTo = (
  notes: readonly HeardNote[],
  to: number,
  on: HeardNote,
  timeline: Timeline,
): Landed['how'] | null => {
  const last = notes[to] as HeardNote
  const voices = notes.slice(Math.max(0, to - 3), to + 1).filter((n) => last.at - n.at <= 2 * timeline.beat)
  for (const step of [-1, 1]) if (voices.some((n) => stepTo(n, on) === step)) return HOW[step] ?? null
  return null
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
    const step = goesByStep(notes, to, i) ? HOW[stepTo(notes[i - 1] as HeardNote, n)] : undefined
    const how = enclosed ? 'enclosure' : (step ?? voiceLeadingTo(notes, to, n, timeline) ?? 'cut')
    return { how, on: i, afterBeats }
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
  runs(notes, awayNotes(notes, jobs), timeline)
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
