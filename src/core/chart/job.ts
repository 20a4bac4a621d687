import { type Chord, type Harmony, isDominant, isMinorTarget } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'

export const PLAIN_JOBS = [
  'tonic',
  'subdominant',
  'borrowed',
  'modal',
  'chromatic ii',
  'chromatic V',
  'static dominant',
  'auxiliary diminished',
  'common-tone diminished',
  'no chord',
] as const
export const POINTING_JOBS = [
  'ii of substitute V',
  'ii',
  'deceptive V',
  'substitute V',
  'backdoor V',
  'V',
  'passing diminished',
] as const

/**
 * What a chord does where it stands. `of` names the chord it points to: `Ab`, or `Abm` for a minor one; `on` is its
 * degree in the key, where its home scale asks for it.
 */
export type Job =
  | { readonly kind: (typeof PLAIN_JOBS)[number]; readonly on?: string }
  | { readonly kind: (typeof POINTING_JOBS)[number]; readonly of: string; readonly minor: boolean }

export const nameOf = (target: Chord): string => target.root.name + (isMinorTarget(target) ? 'm' : '')
export const to = (kind: (typeof POINTING_JOBS)[number], target: Chord): Job => ({
  kind,
  of: nameOf(target),
  minor: isMinorTarget(target),
})

const dominantJob = (up: number, next: Chord): Job => {
  if (up === 5) return to('V', next)
  if (up === 11) return to('substitute V', next)
  const restful = next.family === 'major' || next.family === 'augmented'
  if (up === 2 && restful) return to('backdoor V', next)
  if (up === 2 && next.family === 'minor' && next.quality.recipe.seventh !== '6')
    return { kind: 'deceptive V', of: plainNote(pitchClass(next.root.pc + 3)).name, minor: false }
  return { kind: 'static dominant' }
}

const diminishedJob = (up: number, next: Chord): Job => {
  if (up === 0) return { kind: 'common-tone diminished' }
  return up % 3 === 1 || up === 11 ? to('passing diminished', next) : { kind: 'auxiliary diminished' }
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
  if (isDominant(chord)) return dominantJob(up, next)
  if (chord.family === 'augmented' && up === 5 && chord.quality.recipe.seventh === null) return to('V', next)
  if (chord.family === 'diminished') return diminishedJob(up, next)
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
