import { type Harmony, type Job, jobName, type NoteReading, toGlyphs } from '../../core/index.ts'

/** What a screen reader says of a tab: `D, 7, outside, rub, fade 95`. */
export const noteLabel = (n: NoteReading): string =>
  [toGlyphs(n.note.name), toGlyphs(n.degree), n.role, ...(n.rub ? ['rub'] : []), `fade ${n.fade}`].join(', ')

/** A chord's job in words for the eye; alone, a dominant is taken as resolving. */
export const jobWords = (job: Job | null, chord: Harmony): string => {
  if (job === null) return chord.kind === 'chord' && chord.family === 'dominant' ? 'alone, taken as resolving' : 'alone'
  const words = toGlyphs(jobName(job))
  return job.kind === 'V' || job.kind === 'substitute V' ? `${words}, resolves` : words
}

const BEATS = [
  'no beats',
  'one beat',
  'two beats',
  'three beats',
  'four beats',
  'five beats',
  'six beats',
  'seven beats',
  'eight beats',
]
export const beatsWords = (beats: number): string => BEATS[beats] ?? `${beatText(beats)} beats`

/** 3.5 as 3½; other fractions with two places. */
export const beatText = (beat: number): string => {
  const whole = Math.floor(beat)
  const rest = beat - whole
  if (rest < 0.005) return String(whole)
  return Math.abs(rest - 0.5) < 0.005 ? `${whole}½` : beat.toFixed(2)
}
