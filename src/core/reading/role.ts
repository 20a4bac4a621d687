import type { Job } from '../chart/job.ts'
import { type Chord, isDominant } from '../chord/chord.ts'
import { has, rotate, setOf, union } from '../pitch/pcset.ts'
import { EMPTY_SET, type PcSet } from '../pitch/units.ts'
import type { Home } from './home.ts'
import { isOfMinor, TONIC_ABOVE } from './home-rows.ts'
import type { School } from './school.ts'

export type Role = 'chord' | 'extension' | 'altered' | 'suspension' | 'outside'

/** Which semitones above the root have which role; no bit stands in two, and what stands in none is outside. */
export type RoleSets = Readonly<Record<Exclude<Role, 'outside'>, PcSet>>

const bit = (...ups: readonly number[]): number => setOf(ups)
const ALTERED = bit(1, 3, 6, 8)
const ALTERED_WHEN_STATIC = bit(3, 6)
const SHARP_ELEVEN = bit(6)
const FOUR = bit(5)
const THREE = bit(4)
const NATURAL_TENSIONS = bit(2, 5, 9)
const SEVENTHS = bit(10, 11)
const THIRDS = bit(3, 4)
const NINE_AND_THIRTEEN = bit(2, 9)
const RUBS_ROOT = bit(1, 11)
const FIVE = bit(7)

/** The notes of every seven-note scale also offered. */
const offeredBy = (home: Home): number => {
  let set = 0
  for (const s of home.others) if (s.material.formula.length === 7) set |= s.set
  return set
}

const STAYING: ReadonlySet<Job['kind']> = new Set(['static dominant', 'blues I', 'blues IV'])

const alteredSet = (chord: Chord, home: Home, job: Job | null): number => {
  if (!isDominant(chord)) return 0
  if (chord.family === 'suspended') return suspendedAltered(chord, home)
  const open = job !== null && STAYING.has(job.kind) ? ALTERED_WHEN_STATIC | (ALTERED & home.inside) : ALTERED
  // The raised 11 that a Lydian dominant holds is its own colour: an extension.
  return home.first.material.name === 'lydian dominant' ? open & ~(SHARP_ELEVEN & home.inside) : open
}

/** Over a suspended dominant only the flat 9; #9 and b13 where they are stated or the home scale is Phrygian. */
const suspendedAltered = ({ quality }: Chord, home: Home): number => {
  const phrygian = home.first.material.name === 'phrygian' ? ALTERED & home.inside : 0
  return bit(1) | (bit(3, 8) & quality.statedSet) | (bit(3, 8) & phrygian)
}

/** A semitone above the chord's 1, 3, natural 5, 7 or 6: these want to go down into the chord. */
const leaningSet = ({ quality }: Chord): number =>
  bit(1) | rotate(quality.guideSet, 1) | (quality.recipe.fifth === '5' ? bit(8) : 0)

/** The 11 over any dominant that is not suspended, the 3 over one that is. */
const fixedSuspensions = ({ family, quality }: Chord): number => {
  if (family === 'dominant') return FOUR
  return family === 'suspended' && quality.recipe.third === '4' ? THREE : 0
}

/**
 * Natural tensions of the seven-note scales also offered; on a triad their sevenths too, which it leaves open, and on a
 * power chord their thirds. The raised 11 over any major chord. Natural 9 and 13 over a dominant going to minor, unless
 * its symbol denies them.
 */
const offeredTensions = (chord: Chord, job: Job | null, offered: number): number => {
  const open = (chord.quality.recipe.seventh === null ? SEVENTHS : 0) | (chord.family === 'power' ? THIRDS : 0)
  const natural = offered & (NATURAL_TENSIONS | open)
  const raised = chord.family === 'major' ? SHARP_ELEVEN : 0
  const toMinor = chord.family === 'dominant' && isOfMinor(job)
  return natural | raised | (toMinor ? NINE_AND_THIRTEEN & ~chord.quality.deniedSet : 0)
}

/**
 * The roles of all twelve notes over a chord where it stands: chord, altered, suspension, extension, the first that
 * applies. Schools move the suspensions. Source: theory page, section 5.
 */
export const roleSets = (chord: Chord, home: Home, job: Job | null, school: School): RoleSets => {
  const offered = offeredBy(home)
  const own = chord.ownSet
  const altered = alteredSet(chord, home, job) & ~own
  const fixed = fixedSuspensions(chord) & ~own & ~altered
  const four = chord.family === 'dominant' ? fixed : 0
  const leaning = (((home.inside | offered) & leaningSet(chord)) | fixed) & ~own & ~altered & ~four
  let suspension = 0
  let freed = 0
  if (school.suspensions === 'may pass') suspension |= leaning
  else if (school.suspensions === 'free') freed |= leaning
  if (school.fourOverDominant === 'suspension') suspension |= four
  else if (school.fourOverDominant === 'colour') freed |= four
  const welcome = chord.family === 'half-diminished' && school.fiveOverHalfDiminished === 'welcome' ? FIVE : 0
  const inside = home.inside | offeredTensions(chord, job, offered)
  const extension = ((inside & ~leaning & ~four) | freed | welcome) & ~own & ~altered & ~suspension
  return { chord: own, altered: altered as PcSet, suspension: suspension as PcSet, extension: extension as PcSet }
}

/** A chord where it stands, with what is inside there and by whose judgement. */
export interface Place {
  readonly chord: Chord
  readonly next: Chord | null
  readonly job: Job | null
  readonly home: Home
  readonly school: School
  readonly roles: RoleSets
  /** The tonic's b3, b5 and b7 where the chord stands in a blues, relative to its root: no faults there. */
  readonly blue: PcSet
}

const BLUE_NOTES = bit(3, 6, 10)

/** The blue notes over the I, IV and V of a blues, relative to the chord's root. */
export const blueSet = (chord: Chord, job: Job | null): PcSet => {
  const up = job === null ? undefined : TONIC_ABOVE[job.kind]
  return up === undefined || chord.family === 'diminished' ? EMPTY_SET : rotate(BLUE_NOTES as PcSet, up)
}

/** The same place under a blues scale on a root: over a dominant its blue notes are blue, whatever the chord does. */
export const bluesPlace = (place: Place, root: number): Place =>
  isDominant(place.chord)
    ? { ...place, blue: union(place.blue, rotate(BLUE_NOTES as PcSet, root - place.chord.root.pc)) }
    : place

const roleAt = (roles: RoleSets, up: number): Role => {
  const bit = 1 << up
  if (roles.chord & bit) return 'chord'
  if (roles.altered & bit) return 'altered'
  if (roles.suspension & bit) return 'suspension'
  return roles.extension & bit ? 'extension' : 'outside'
}

/** What a note outside rubs against: a guide tone or the root a semitone away. Only an outside note rubs. */
const rubAt = (chord: Chord, up: number): 'guide' | 'root' | null => {
  const { guideSet } = chord.quality
  if (has(guideSet, (up + 1) % 12) || has(guideSet, (up + 11) % 12)) return 'guide'
  return (RUBS_ROOT >> up) & 1 ? 'root' : null
}

/** What a note is over a place, as far as its fade needs it. `up` counts semitones above the root. */
export interface Standing {
  readonly up: number
  readonly role: Role
  readonly inHome: boolean
  readonly stated: boolean
  readonly denied: boolean
  readonly rub: 'guide' | 'root' | null
  /** A blue note of the tonic or of the blues scale laid here. */
  readonly blue: boolean
  /** The natural 7 over a minor chord: over a tonic nearly at home. */
  readonly minorSeven: 'over a tonic' | 'elsewhere' | null
}

const RESTING: ReadonlySet<Job['kind']> = new Set(['tonic', 'blues I'])

/** Only a note whose role is outside can be denied or rub. */
export const standingAt = ({ chord, home, roles, job, blue: blues }: Place, up: number): Standing => {
  const role = roleAt(roles, up)
  const blue = has(blues, up)
  const minorSeven = role === 'outside' && up === 11 && chord.family === 'minor'
  const outside = role === 'outside' && !blue && !minorSeven
  return {
    up,
    role,
    inHome: has(home.inside, up),
    stated: has(chord.quality.statedSet, up),
    denied: outside && has(chord.quality.deniedSet, up),
    rub: outside ? rubAt(chord, up) : null,
    blue,
    minorSeven: minorSeven ? (job !== null && RESTING.has(job.kind) ? 'over a tonic' : 'elsewhere') : null,
  }
}
