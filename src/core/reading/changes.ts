import { type NoteReading, placeOf, type Reading, readOver } from './read.ts'
import { SCHOOL_CHOICES, type SchoolSetting } from './school.ts'
import type { Weights } from './weights.ts'

/** A note that is judged anew: by another school, home scale or weight. */
export interface Change {
  readonly before: NoteReading
  readonly after: NoteReading
}

/** The notes of one overlay whose role or fade differ between two readings of it. */
export const changesBetween = (before: Reading, after: Reading): readonly Change[] =>
  before.notes.flatMap((n, i) => {
    const then = after.notes[i]
    return then && (then.role !== n.role || then.fade !== n.fade) ? [{ before: n, after: then }] : []
  })

const changeWords = ({ before, after }: Change): string =>
  before.role === after.role
    ? `${after.note.name} moves from ${before.fade} to ${after.fade}`
    : `${after.note.name}, ${before.role} at ${before.fade}, becomes ${after.role} at ${after.fade}`

/** What a change of judgement does, in a sentence (ASCII). */
export const changesSentence = (before: Reading, after: Reading): string => {
  const changes = changesBetween(before, after)
  const landing = before.landing === after.landing ? '' : `, the landing from ${before.landing} to ${after.landing}`
  if (changes.length === 0 && landing === '') return 'Nothing changes here.'
  const fade =
    before.fade === after.fade ? `the fade stays ${after.fade}` : `the fade goes from ${before.fade} to ${after.fade}`
  return `${[...changes.map(changeWords), fade].join('; ')}${landing}.`
}

/** One choice of one school setting, and what it would change in a reading. */
export interface SchoolEffect {
  readonly setting: SchoolSetting
  readonly choice: string
  readonly chosen: boolean
  readonly after: Reading
  readonly changes: readonly Change[]
  readonly homeChanges: boolean
}

/**
 * Every choice of every school setting with its effect on one reading. The home scale follows the school, so a scale the
 * player put first is set aside here.
 */
export const schoolEffects = (reading: Reading, weights: Weights): readonly SchoolEffect[] => {
  const { chord, next, job, school, home } = reading.place
  return (Object.keys(SCHOOL_CHOICES) as SchoolSetting[]).flatMap((setting) =>
    SCHOOL_CHOICES[setting].choices.map((choice) => {
      const place = placeOf(chord, next, { ...school, [setting]: choice }, job)
      const after = readOver(reading.overlay, place, weights)
      const homeChanges = place.home.first.set !== home.first.set
      return {
        setting,
        choice,
        chosen: school[setting] === choice,
        after,
        changes: changesBetween(reading, after),
        homeChanges,
      }
    }),
  )
}
