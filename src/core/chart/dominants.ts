import { type Chord, isDominant } from '../chord/chord.ts'
import { noteAbove, plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { canBeII, type Form, goalOf, type Hold, iiBefore, onFrom, upTo } from './holds.ts'
import { isDelayed, type Job, to } from './job.ts'
import type { PlainKey } from './keys.ts'

/** A job, and for a dominant whether it resolves, and through which inserted ii. */
export interface Judged {
  readonly job: Job
  readonly resolves: boolean
  readonly through?: Chord
}

const resolving = (job: Job, through?: Chord): Judged => ({ job, resolves: true, ...(through ? { through } : {}) })

/** What a dominant would resolve to, spelled a fourth up from it. */
const tonicName = (dominant: Chord): string => {
  const note = noteAbove(dominant.root, 3, 5)
  return Math.abs(note.alter) > 1 ? plainNote(note.pc).name : note.name
}

/** The third of a key after its V: vi, iii, or the flat VI of the minor key. */
const isDeceptive = (dominant: Chord, next: Chord): boolean => {
  const up = upTo(dominant, next)
  const { family, quality } = next
  const isMinor = family === 'minor' && quality.recipe.seventh !== '6'
  return (up === 2 && isMinor) || (up === 1 && family === 'major') || (up === 9 && isMinor)
}

/** Where a dominant that resolves elsewhere would have gone: to a minor chord, on the 5 of a minor key or the 3 of a major one. */
const promised = (kind: 'deceptive V' | 'delayed V', dominant: Chord, minor: boolean): Job => ({
  kind,
  of: tonicName(dominant) + (minor ? 'm' : ''),
  minor,
})

/**
 * What a dominant does: it resolves a fifth or a semitone down, or a semitone down through an inserted ii; or it is
 * delayed by the minor chord on its own root, goes home by the back door, deceives, or stays. It never resolves past a
 * chord that stands between. Source: theory page, section 7.
 */
export const dominantAt = (form: Form, hold: Hold, key: PlainKey): Judged => {
  const on = degreeIn(key, hold.chord)
  const judged = plainDominantAt(form, hold, on, key.mode)
  return { ...judged, job: { ...judged.job, on, mode: key.mode } }
}

const plainDominantAt = (form: Form, hold: Hold, on: string, mode: PlainKey['mode']): Judged => {
  const { chord } = hold
  const next = goalOf(form, hold)
  if (!next) return STAYS
  const up = upTo(chord, next.chord)
  if (up === 5) return resolving(to('V', next.chord))
  if (up === 11 && !canBeIIOf(form, next)) return resolving(to('substitute V', next.chord))
  if (isDelayed(chord, next.chord)) return resolving(delayed(form, chord, next))
  const after = canBeII(next.chord) ? goalOf(form, next) : null
  if (after && isDominant(after.chord) && upTo(next.chord, after.chord) === 5 && upTo(chord, after.chord) === 11)
    return resolving(to('substitute V', after.chord), next.chord)
  if (up === 11) return resolving(to('substitute V', next.chord))
  if (up === 2 && (next.chord.family === 'major' || next.chord.family === 'augmented'))
    return { job: to('backdoor V', next.chord), resolves: false }
  const ii = iiBefore(form, hold)
  if (!ii && on === '5' && up === 7 && canBeIIOf(form, next))
    return resolving(promised('delayed V', chord, mode === 'minor'))
  const ofMinor = mode === 'minor' ? on === '5' : on === '3'
  const isV = ii !== null || on === '5' || ofMinor
  const minor = ii ? ii.chord.family === 'half-diminished' || ofMinor : ofMinor
  return isV && isDeceptive(chord, next.chord) ? resolving(promised('deceptive V', chord, minor)) : STAYS
}

/** A delayed V is named by the chord a fifth below that comes after the delay, else by where it would have gone. */
const delayed = (form: Form, dominant: Chord, next: Hold): Job => {
  const after = onFrom(form, next, 1)
  const comes = after && upTo(dominant, after.chord) === 5
  return comes ? to('delayed V', after.chord) : promised('delayed V', dominant, false)
}

const STAYS: Judged = { job: { kind: 'static dominant' }, resolves: false }

/** Whether a chord is the ii of the dominant that follows it. */
const canBeIIOf = (form: Form, hold: Hold): boolean => {
  const next = canBeII(hold.chord) ? goalOf(form, hold) : null
  return next !== null && isDominant(next.chord) && upTo(hold.chord, next.chord) === 5
}

const DEGREES = ['1', 'b2', '2', 'b3', '3', '4', '#4', '5', 'b6', '6', 'b7', '7'] as const

/** The degree of a chord's root in a key, ASCII. */
export const degreeIn = (key: PlainKey, chord: Chord): string => DEGREES[pitchClass(chord.root.pc - key.tonic)] ?? '1'

/** The ii of a dominant takes its name from where that one goes. */
export const iiJob = (ii: Chord, judged: Judged, dominant: Chord): Job => {
  const { job } = judged
  if (job.kind === 'substitute V')
    return { kind: upTo(ii, dominant) === 5 ? 'ii of substitute V' : 'ii', of: job.of, minor: job.minor }
  if (job.kind === 'V' || job.kind === 'deceptive V') return { kind: 'ii', of: job.of, minor: job.minor }
  if (job.kind === 'backdoor V') return { kind: 'borrowed' }
  const minor = ii.family === 'half-diminished'
  return { kind: 'ii', of: tonicName(dominant) + (minor ? 'm' : ''), minor }
}
