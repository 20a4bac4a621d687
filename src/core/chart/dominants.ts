import { type Chord, isDominant } from '../chord/chord.ts'
import { noteAbove, plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { canBeII, type Form, goalOf, type Hold, iiBefore, upTo } from './holds.ts'
import { type Job, to } from './job.ts'
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

const deceptive = (dominant: Chord, minor: boolean): Job => ({
  kind: 'deceptive V',
  of: tonicName(dominant) + (minor ? 'm' : ''),
  minor,
})

/**
 * What a dominant does: it resolves a fifth or a semitone down, or to there through an inserted ii; or it goes home by
 * the back door, deceives, or stays. Source: theory page, section 7.
 */
export const dominantAt = (form: Form, hold: Hold, key: PlainKey): Judged => {
  const { chord } = hold
  const next = goalOf(form, hold)
  const ii = iiBefore(form, hold)
  const on = { on: degreeIn(key, chord) }
  if (!next) return stays(on)
  const up = upTo(chord, next.chord)
  if (up === 5) return resolving(to('V', next.chord))
  if (up === 11 && !canBeIIOf(form, next)) return resolving(to('substitute V', next.chord))
  const after = canBeII(next.chord) ? goalOf(form, next) : null
  if (after && isDominant(after.chord) && upTo(next.chord, after.chord) === 5) {
    const further = upTo(chord, after.chord)
    if (further === 5) return resolving(to('V', after.chord), next.chord)
    if (further === 11) return resolving(to('substitute V', after.chord), next.chord)
  }
  if (up === 11) return resolving(to('substitute V', next.chord))
  if (up === 2 && (next.chord.family === 'major' || next.chord.family === 'augmented'))
    return { job: to('backdoor V', next.chord), resolves: false }
  const isV = ii !== null || pitchClass(chord.root.pc - key.tonic) === 7
  const minor = ii ? ii.chord.family === 'half-diminished' : key.mode === 'minor'
  return isV && isDeceptive(chord, next.chord) ? resolving(deceptive(chord, minor)) : stays(on)
}

const stays = (on: { readonly on: string }): Judged => ({ job: { kind: 'static dominant', ...on }, resolves: false })

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
  if (job.kind === 'substitute V') return { ...job, kind: upTo(ii, dominant) === 5 ? 'ii of substitute V' : 'ii' }
  if (job.kind === 'V' || job.kind === 'deceptive V') return { ...job, kind: 'ii' }
  if (job.kind === 'backdoor V') return { kind: 'borrowed' }
  const minor = ii.family === 'half-diminished'
  return { kind: 'ii', of: tonicName(dominant) + (minor ? 'm' : ''), minor }
}
