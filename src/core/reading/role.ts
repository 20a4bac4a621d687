import type { Job } from '../chart/job.ts'
import type { Chord } from '../chord/chord.ts'
import { isDominant } from '../chord/chord.ts'
import { has, rotate, sizeOf } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Home } from './home.ts'
import type { School } from './school.ts'

export type Role = 'chord' | 'extension' | 'altered' | 'suspension' | 'outside'

/** A chord where it stands, with what is inside there and by whose judgement. */
export interface Place {
  readonly chord: Chord
  readonly next: Chord | null
  readonly job: Job | null
  readonly home: Home
  readonly school: School
}

/** What one pitch is over a place; `up` counts semitones above the chord's root. Only an outside note is denied or rubs. */
export interface Judgement {
  readonly up: number
  readonly role: Role
  readonly inHome: boolean
  readonly denied: boolean
  readonly rub: 'guide' | 'root' | null
}

const NINTH = 2
const FOURTH = 5
const SHARP_ELEVEN = 6
const FIFTH = 7
const THIRTEENTH = 9
const ALTERED = [1, 3, 6, 8]
const ALTERED_WHEN_STATIC = [3, 6]

const inOfferedMode = (place: Place, up: number): boolean =>
  place.home.others.some((s) => sizeOf(s.set) === 7 && has(s.set, up))

/** A semitone above the chord's 1, 3, natural 5, 7 or 6: it wants to go down into the chord. */
const leansOnChord = (chord: Chord, up: number): boolean => {
  const below = pitchClass(up - 1)
  if (below === 0) return true
  if (below === FIFTH) return chord.fifth === '5'
  return has(chord.guideSet, below)
}

const isAltered = (place: Place, up: number): boolean => {
  const { chord, home, job } = place
  if (!isDominant(chord) || !ALTERED.includes(up)) return false
  const held = has(home.inside, up)
  if (up === SHARP_ELEVEN && home.first.material.name === 'lydian dominant' && held) return false
  return held || job?.kind !== 'static dominant' || ALTERED_WHEN_STATIC.includes(up)
}

const fourOverDominant = (place: Place, up: number): boolean => place.chord.family === 'dominant' && up === FOURTH
const threeOverSuspended = (place: Place, up: number): boolean =>
  place.chord.family === 'suspended' && place.chord.third === '4' && up === 4

const isSuspension = (place: Place, up: number): boolean =>
  fourOverDominant(place, up) ||
  threeOverSuspended(place, up) ||
  ((has(place.home.inside, up) || inOfferedMode(place, up)) && leansOnChord(place.chord, up))

/**
 * A natural tension of a seven-note scale also offered. On a triad the sevenths count as such: it leaves them open.
 * Natural 9 and 13 over a dominant going to minor belong here unless its symbol denies them.
 */
const isOffered = (place: Place, up: number): boolean => {
  const { chord, job } = place
  if (chord.family === 'major' && up === SHARP_ELEVEN) return true
  const toMinor = chord.family === 'dominant' && job?.kind === 'V' && job.minor
  if (toMinor && (up === NINTH || up === THIRTEENTH)) return !has(chord.deniedSet, up)
  const natural = [NINTH, FOURTH, THIRTEENTH].includes(up) || (chord.seventh === null && (up === 10 || up === 11))
  return natural && inOfferedMode(place, up)
}

const bySchool = (choice: School['suspensions'] | School['fourOverDominant']): Role =>
  choice === 'free' || choice === 'colour'
    ? 'extension'
    : choice === 'kept out' || choice === 'left out'
      ? 'outside'
      : 'suspension'

const roleOf = (place: Place, up: number): Role => {
  const { chord, home, school } = place
  if (has(chord.ownSet, up)) return 'chord'
  if (isAltered(place, up)) return 'altered'
  if (isSuspension(place, up))
    return bySchool(fourOverDominant(place, up) ? school.fourOverDominant : school.suspensions)
  if (has(home.inside, up) || isOffered(place, up)) return 'extension'
  const welcome = chord.family === 'half-diminished' && up === FIFTH && school.fiveOverHalfDiminished === 'welcome'
  return welcome ? 'extension' : 'outside'
}

const rubOf = (chord: Chord, up: number): Judgement['rub'] => {
  const near = rotate(chord.guideSet, 1) | rotate(chord.guideSet, -1)
  if ((near >> up) & 1) return 'guide'
  return up === 1 || up === 11 ? 'root' : null
}

/** The role of a pitch over a place: chord, altered, suspension, extension, outside, the first that applies. */
export const judge = (place: Place, pc: number): Judgement => {
  const up = pitchClass(pc - place.chord.root.pc)
  const role = roleOf(place, up)
  const outside = role === 'outside'
  return {
    up,
    role,
    inHome: has(place.home.inside, up),
    denied: outside && has(place.chord.deniedSet, up),
    rub: outside ? rubOf(place.chord, up) : null,
  }
}
