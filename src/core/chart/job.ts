import { type Chord, type Harmony, isDominant, isMinorTarget } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'

/** What a chord does where it stands. `of` names the chord it points to: `Ab`, or `Abm` for a minor one. */
export type Job =
  | {
      readonly kind:
        | 'tonic'
        | 'modal'
        | 'static dominant'
        | 'auxiliary diminished'
        | 'common-tone diminished'
        | 'no chord'
    }
  | {
      readonly kind: 'ii' | 'V' | 'deceptive V' | 'substitute V' | 'backdoor V' | 'passing diminished'
      readonly of: string
      readonly minor: boolean
    }

const nameOf = (target: Chord): string => target.root.name + (isMinorTarget(target) ? 'm' : '')
const to = (kind: 'V' | 'deceptive V' | 'substitute V' | 'backdoor V' | 'passing diminished', target: Chord): Job => ({
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

/** `V of Ab`, `ii of Dm`, `passing diminished to Em`, `static dominant`. */
export const jobName = (job: Job): string =>
  'of' in job ? `${job.kind} ${job.kind === 'passing diminished' ? 'to' : 'of'} ${job.of}` : job.kind
