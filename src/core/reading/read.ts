import { type Job, jobFromNext } from '../chart/job.ts'
import { type Chord, degreeOver, heardOver } from '../chord/chord.ts'
import type { Overlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has, sizeOf } from '../pitch/pcset.ts'
import { type Exit, exitsOf, targetsOf } from './exits.ts'
import { noteFade, overlayFade } from './fade.ts'
import { homeOf } from './home.ts'
import { type Judgement, judge, type Place, type Role } from './role.ts'
import { DEFAULT_SCHOOL, type School } from './school.ts'
import { DEFAULT_WEIGHTS, type Weights } from './weights.ts'

/** One note of an overlay over a chord. */
export interface NoteReading extends Omit<Judgement, 'rub' | 'up'> {
  readonly note: Note
  /** The note spelled as a degree of the chord. */
  readonly heard: Note
  readonly degree: string
  readonly stated: boolean
  readonly root: boolean
  readonly guide: boolean
  readonly rub: boolean
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

/** A chord with its job (from the next chord where none is given) and its home scale, by a school. */
export const placeOf = (
  chord: Chord,
  next: Chord | null,
  school: School = DEFAULT_SCHOOL,
  job: Job | null = jobFromNext(chord, next),
): Place => ({
  chord,
  next,
  job,
  school,
  home: homeOf(chord, next, job, school),
})

const keepsBack = (place: Place, up: number): boolean =>
  up === 9 &&
  place.school.iiBeforeV === 'two colours' &&
  place.chord.family === 'minor' &&
  place.job?.kind === 'ii' &&
  place.next !== null &&
  place.next.family === 'dominant' &&
  place.next.root.pc === (place.chord.root.pc + 5) % 12

const rubbedNote = (chord: Chord, j: Judgement): Note | null => {
  if (j.rub === null) return null
  if (j.rub === 'root') return chord.root
  const below = (j.up + 11) % 12
  return heardOver(chord, chord.root.pc + (has(chord.guideSet, below) ? below : j.up + 1))
}

const EXIT_WEIGHT: Readonly<Record<Role, number>> = { chord: 1, extension: 1, altered: 2, suspension: 2, outside: 2 }

/** The mean of the best exits, altered, suspension and outside notes counted twice, as 0..100; summed in whole hundredths. */
const landingOf = (notes: readonly NoteReading[]): number => {
  let sum = 0
  let weight = 0
  for (const n of notes) {
    sum += EXIT_WEIGHT[n.role] * Math.round(100 * (n.exits[0]?.strength ?? 0))
    weight += EXIT_WEIGHT[n.role]
  }
  return Math.round(sum / weight)
}

const readNote = (
  place: Place,
  note: Note,
  weights: Weights,
  targets: ReturnType<typeof targetsOf> | null,
): NoteReading => {
  const { chord } = place
  const j = judge(place, note.pc)
  return {
    note,
    heard: heardOver(chord, note.pc),
    degree: degreeOver(chord, note.pc),
    role: j.role,
    inHome: j.inHome,
    stated: has(chord.statedSet, j.up),
    denied: j.denied,
    root: j.up === 0,
    guide: j.role === 'chord' && has(chord.guideSet, j.up),
    rub: j.rub !== null,
    rubs: rubbedNote(chord, j),
    keptBack: keepsBack(place, j.up),
    fade: noteFade(j, chord, weights),
    exits: targets === null ? [] : exitsOf(note.pc, targets),
  }
}

/**
 * Reads an overlay over a chord where it stands: degree, role, fade and exits of every note, fade and landing of the
 * whole. Pure; 0..100 figures are rounded once at the end. Source: theory page, section 5.
 */
export const readOver = (overlay: Overlay, place: Place, weights: Weights = DEFAULT_WEIGHTS): Reading => {
  const targets = place.next === null ? null : targetsOf(place.next, place.school)
  const notes = overlay.notes.map((n) => readNote(place, n, weights, targets))
  const counts = { chord: 0, extension: 0, altered: 0, suspension: 0, outside: 0 }
  let sum = 0
  let worst: NoteReading | null = null
  let guidesHeld = 0
  for (const n of notes) {
    counts[n.role]++
    sum += n.fade
    if (n.guide) guidesHeld++
    if (n.note.pc !== overlay.passing && (worst === null || n.fade > worst.fade)) worst = n
  }
  if (worst === null) throw new Error('an overlay has notes')
  const guides = sizeOf(place.chord.guideSet)
  return {
    place,
    overlay,
    notes,
    fade: overlayFade(sum, notes.length, worst.fade, weights),
    worst,
    counts,
    landing: targets === null ? null : landingOf(notes),
    noExit: targets === null ? [] : notes.filter((n) => n.exits.length === 0),
    commonTones: notes.filter((n) => n.role === 'chord').map((n) => n.heard),
    guidesHeld,
    statesChord: guides > 0 && guidesHeld === guides,
  }
}
