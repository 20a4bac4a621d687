import { type Chord, type Harmony, isDominant, isMinorTarget } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'

export const PLAIN_JOBS = [
  'tonic',
  'subdominant',
  'borrowed',
  'modal',
  'chromatic ii',
  'chromatic V',
  'static dominant',
  'blues I',
  'blues IV',
  'blues V',
  'auxiliary diminished',
  'common-tone diminished',
  'no chord',
] as const
export const POINTING_JOBS = [
  'ii of substitute V',
  'ii',
  'delayed V',
  'deceptive V',
  'substitute V',
  'backdoor V',
  'V',
  'passing diminished',
  'vii',
] as const

/** Where a job stands in its key, as far as a home scale asks for it. */
interface Standing {
  /** Degree of the root in the local key, ASCII. */
  readonly on?: string | undefined
  /** That key's mode. */
  readonly mode?: 'major' | 'minor' | undefined
  /** Over a pedal a chord keeps its own row, whatever its bass would make of it. */
  readonly overPedal?: boolean | undefined
}

/**
 * What a chord does where it stands. `of` names the chord it points to: `Ab`, or `Abm` for a minor one. `leads` is what
 * a held dominant does in its last bar; `rests` is the scale a modal stretch rests in, its root so many semitones above
 * this chord's.
 */
export type Job =
  | (Standing & {
      readonly kind: (typeof PLAIN_JOBS)[number]
      readonly leads?: Job | undefined
      readonly rests?: { readonly scale: string; readonly up: number } | undefined
    })
  | (Standing & { readonly kind: (typeof POINTING_JOBS)[number]; readonly of: string; readonly minor: boolean })

export const nameOf = (target: Chord): string => target.root.name + (isMinorTarget(target) ? 'm' : '')
export const to = (kind: (typeof POINTING_JOBS)[number], target: Chord): Job => ({
  kind,
  of: nameOf(target),
  minor: isMinorTarget(target),
})

/** The note a fourth above a dominant, where its goal would be. */
const fourthAbove = (dominant: Chord): string => plainNote(pitchClass(dominant.root.pc + 5)).name

/** A minor chord on a dominant's own root puts its resolution off. */
export const isDelayed = (dominant: Chord, next: Chord): boolean =>
  next.root.pc === dominant.root.pc && (next.family === 'minor' || next.family === 'half-diminished')

const dominantJob = (chord: Chord, up: number, next: Chord): Job => {
  if (up === 5) return to('V', next)
  if (up === 11) return to('substitute V', next)
  if (isDelayed(chord, next)) return { kind: 'delayed V', of: fourthAbove(chord), minor: false, on: '2', mode: 'major' }
  const restful = next.family === 'major' || next.family === 'augmented'
  if (up === 2 && restful) return to('backdoor V', next)
  if (up === 1 && restful) return { kind: 'deceptive V', of: `${fourthAbove(chord)}m`, minor: true }
  if (up === 2 && next.family === 'minor' && next.quality.recipe.seventh !== '6')
    return { kind: 'deceptive V', of: plainNote(pitchClass(next.root.pc + 3)).name, minor: false }
  return { kind: 'static dominant' }
}

/**
 * What a diminished chord does before another, in this order: the vii of a chord a half step above its root; passing,
 * where root or bass moves on by a half step; common-tone, where it holds the next one's root; auxiliary. Source: theory
 * page, section 7.
 */
export const diminishedJob = (chord: Chord, next: Chord | null): Job => {
  if (next === null) return { kind: 'auxiliary diminished' }
  const up = pitchClass(next.root.pc - chord.root.pc)
  if (up === 1) return to('vii', next)
  const byBass = pitchClass(next.bass.pc - chord.bass.pc)
  if ([up, byBass].some((by) => by === 1 || by === 11)) return to('passing diminished', next)
  return has(chord.quality.ownSet, up) ? { kind: 'common-tone diminished' } : { kind: 'auxiliary diminished' }
}

/**
 * A chord's job as far as the next chord tells it: a dominant resolves a fifth or a semitone down, a minor seventh
 * before the dominant a fifth below is its ii. Null where no next chord is known, and where a further look at the key
 * is needed the plainest name is given. Source: theory page, section 7.
 */
export const jobFromNext = (chord: Harmony, next: Harmony | null): Job | null => {
  if (chord.kind === 'no chord') return { kind: 'no chord' }
  if (next === null || next.kind === 'no chord') return null
  const up = pitchClass(next.root.pc - chord.root.pc)
  if (isDominant(chord)) return dominantJob(chord, up, next)
  if (chord.family === 'augmented' && up === 5 && chord.quality.recipe.seventh === null) return to('V', next)
  if (chord.family === 'diminished') return diminishedJob(chord, next)
  const subdominant =
    chord.family === 'half-diminished' || (chord.family === 'minor' && chord.quality.recipe.seventh === 'b7')
  if ((subdominant || chord.family === 'minor') && isDominant(next) && (up === 5 || (subdominant && up === 11))) {
    const minor = chord.family === 'half-diminished'
    const target = pitchClass(chord.root.pc - 2)
    return { kind: 'ii', of: targetName(chord, target) + (minor ? 'm' : ''), minor }
  }
  return { kind: subdominant ? 'modal' : 'tonic' }
}

/** The note a whole step below the ii, spelled on the letter below where that is plain. */
const targetName = (ii: Chord, pc: ReturnType<typeof pitchClass>): string => {
  const sharp = ii.root.name.includes('#')
  const plain = plainNote(pc)
  return plain.name.length > 1 && sharp ? plainNote(pc, true).name : plain.name
}

/** Reads what `jobName` prints; null for anything else. */
export const readJob = (text: string): Job | null => {
  const plain = PLAIN_JOBS.find((k) => k === text)
  if (plain) return { kind: plain }
  const kind = POINTING_JOBS.find((k) => text.startsWith(`${k} of `) || text.startsWith(`${k} to `))
  const target = kind && /^[A-G](?:bb|##|[b#])?m?$/.exec(text.slice(kind.length + 4))
  return kind && target ? { kind, of: target[0], minor: target[0].endsWith('m') } : null
}

/** `V of Ab`, `ii of Dm`, `passing diminished to Em`, `static dominant`. */
export const jobName = (job: Job): string =>
  'of' in job ? `${job.kind} ${job.kind === 'passing diminished' ? 'to' : 'of'} ${job.of}` : job.kind
