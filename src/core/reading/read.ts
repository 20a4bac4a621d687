import { type Job, jobFromNext } from '../chart/job.ts'
import { type Chord, heardOver } from '../chord/chord.ts'
import { overItsBass } from '../chord/slash.ts'
import type { Overlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has, rotate, sizeOf } from '../pitch/pcset.ts'
import { type Exit, exitsOf, type Targets, targetsOf } from './exits.ts'
import { noteFade, overlayFade } from './fade.ts'
import { homeOf, insideOf } from './home.ts'
import { blueSet, bluesPlace, type Place, type Role, roleSets, type Standing, standingAt } from './role.ts'
import { DEFAULT_SCHOOL, type School } from './school.ts'
import { DEFAULT_WEIGHTS, type Weights } from './weights.ts'

/** One note of an overlay over a chord. */
export interface NoteReading extends Standing {
  readonly note: Note
  /** The note spelled as a degree of the chord. */
  readonly heard: Note
  readonly degree: string
  readonly root: boolean
  readonly guide: boolean
  /** What it rubs against, as heard. */
  readonly rubs: Note | null
  /** The 6 of a ii before its V, which the school keeps back. */
  readonly keptBack: boolean
  readonly fade: number
  readonly exits: readonly Exit[]
}

export interface Reading {
  readonly place: Place
  readonly overlay: Overlay
  readonly notes: readonly NoteReading[]
  readonly fade: number
  readonly worst: NoteReading
  readonly counts: Readonly<Record<Role, number>>
  /** 0..100; null where no next chord is known. */
  readonly landing: number | null
  readonly noExit: readonly NoteReading[]
  readonly commonTones: readonly Note[]
  readonly guidesHeld: number
  readonly statesChord: boolean
}

/** A chord as its bass makes it heard, with its job (from the next chord where none is given) and its home scale, by a school. */
export const placeOf = (
  written: Chord,
  following: Chord | null,
  school: School = DEFAULT_SCHOOL,
  known?: Job | null,
): Place => {
  const chord = known?.overPedal ? written : overItsBass(written, following)
  const next = following && overItsBass(following, null)
  const job = known === undefined ? jobFromNext(chord, next) : known
  const home = homeOf(chord, next, job, school)
  return { chord, next, job, school, home, roles: roleSets(chord, home, job, school), blue: blueSet(chord, job) }
}

/** The same place with another home scale put first by the player; the one the rules gave is still offered. */
export const withHome = (place: Place, scale: Overlay): Place => {
  const { chord, job, school } = place
  if (scale.material === null) return place
  const set = rotate(scale.set, -chord.root.pc)
  const first = { material: scale.material, root: scale.root, set }
  const others = [place.home.first, ...place.home.others].filter((o) => o.set !== set)
  const home = { first, others, inside: insideOf(chord, set), because: 'you chose it' }
  return { ...place, home, roles: roleSets(chord, home, job, school) }
}

/** A chord where it stands, with the home scale the player named there, where one was named and reads. */
export const placeWithHome = (
  chord: Chord,
  next: Chord | null,
  school: School,
  job: Job | null | undefined,
  home: string | null | undefined,
): Place => {
  const place = placeOf(chord, next, school, job)
  const scale = home === null || home === undefined ? null : readOverlay(home)
  return scale?.ok ? withHome(place, scale.value) : place
}

const keepsBack = (place: Place, up: number): boolean =>
  up === 9 &&
  place.school.iiBeforeV === 'two colours' &&
  place.chord.family === 'minor' &&
  place.job?.kind === 'ii' &&
  place.next !== null &&
  place.next.family === 'dominant' &&
  place.next.root.pc === (place.chord.root.pc + 5) % 12

const rubbedNote = (chord: Chord, rub: Standing['rub'], up: number): Note | null => {
  if (rub === null) return null
  if (rub === 'root') return chord.root
  const below = (up + 11) % 12
  return heardOver(chord, chord.root.pc + (has(chord.quality.guideSet, below) ? below : up + 1))
}

/** Altered, suspension and outside notes count twice in the landing. */
const EXIT_WEIGHT: Readonly<Record<Role, number>> = {
  chord: 1,
  extension: 1,
  altered: 2,
  suspension: 2,
  outside: 2,
}

/** How often a note counts in the landing: a blue note once. */
export const exitWeight = ({ role, blue }: Standing): number => (blue ? 1 : EXIT_WEIGHT[role])

/** The mean of the best exits, altered, suspension and outside notes counted twice, as 0..100; summed in whole hundredths. */
const landingOf = (notes: readonly NoteReading[]): number => {
  let sum = 0
  let weight = 0
  for (const n of notes) {
    const counts = exitWeight(n)
    sum += counts * Math.round(100 * (n.exits[0]?.strength ?? 0))
    weight += counts
  }
  return Math.round(sum / weight)
}

/** Under a blues scale named as such, over a dominant: the blue notes are that scale's own. */
const withBlueNotes = (place: Place, { material, root }: Overlay): Place =>
  material?.family === 'blues' ? bluesPlace(place, root.pc) : place

const NO_EXITS: readonly Exit[] = []

const readNote = (place: Place, note: Note, weights: Weights, targets: Targets | null): NoteReading => {
  const { chord } = place
  const { quality } = chord
  const up = (note.pc - chord.root.pc + 12) % 12
  const standing = standingAt(place, up)
  const { role, inHome, stated, denied, rub, blue, minorSeven } = standing
  return {
    up,
    role,
    inHome,
    stated,
    denied,
    rub,
    blue,
    minorSeven,
    note,
    heard: chord.heard[up] ?? note,
    degree: quality.degrees[up]?.name ?? '1',
    root: up === 0,
    guide: role === 'chord' && has(quality.guideSet, up),
    rubs: rubbedNote(chord, rub, up),
    keptBack: keepsBack(place, up),
    fade: noteFade(standing, chord, weights),
    exits: targets === null ? NO_EXITS : exitsOf(note.pc, targets),
  }
}

/**
 * Reads an overlay over a chord where it stands: degree, role, fade and exits of every note, fade and landing of the
 * whole. Pure; 0..100 figures are rounded once at the end. Source: theory page, section 5.
 */
export const readOver = (overlay: Overlay, asked: Place, weights: Weights = DEFAULT_WEIGHTS): Reading => {
  const place = withBlueNotes(asked, overlay)
  const targets = place.next === null ? null : targetsOf(place.next, place.school)
  const notes: NoteReading[] = []
  const noExit: NoteReading[] = []
  const commonTones: Note[] = []
  const counts = { chord: 0, extension: 0, altered: 0, suspension: 0, outside: 0 }
  let sum = 0
  let worst: NoteReading | null = null
  let guidesHeld = 0
  for (const note of overlay.notes) {
    const n = readNote(place, note, weights, targets)
    notes.push(n)
    counts[n.role]++
    sum += n.fade
    if (n.guide) guidesHeld++
    if (n.role === 'chord') commonTones.push(n.heard)
    if (targets !== null && n.exits.length === 0) noExit.push(n)
    if (n.note.pc !== overlay.passing && (worst === null || n.fade > worst.fade)) worst = n
  }
  if (worst === null) throw new Error('an overlay has notes')
  const guides = sizeOf(place.chord.quality.guideSet)
  return {
    place,
    overlay,
    notes,
    fade: overlayFade(sum, notes.length, worst.fade, weights),
    worst,
    counts,
    landing: targets === null ? null : landingOf(notes),
    noExit,
    commonTones,
    guidesHeld,
    statesChord: guides > 0 && guidesHeld === guides,
  }
}
