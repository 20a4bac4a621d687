import {
  type FamilyName,
  type Harmony,
  type Job,
  jobName,
  type NoteReading,
  namesOf,
  type Overlay,
  pitchClass,
  plainNote,
  printCount,
  toGlyphs,
} from '../../core/index.ts'

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

/** `1 chart`, `2,100 overlays`. */
export const howMany = (n: number, noun: string): string => `${printCount(n)} ${noun}${n === 1 ? '' : 's'}`

/** 3.5 as 3½; other fractions with two places. */
export const beatText = (beat: number): string => {
  const whole = Math.floor(beat)
  const rest = beat - whole
  if (rest < 0.005) return String(whole)
  return Math.abs(rest - 0.5) < 0.005 ? `${whole}½` : beat.toFixed(2)
}

const APART = [
  'on one root',
  'a half step apart',
  'a step apart',
  'a minor third apart',
  'a major third apart',
  'a fourth apart',
  'a tritone apart',
]
const NOTES = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve']

/** What an overlay is, in a few words: `pair, a step apart`, `8 notes`, `5 notes, 2 names`. */
export const overlayWords = (overlay: Overlay, family: FamilyName, also: number): string => {
  const { groups, notes } = overlay
  if (groups) {
    const apart = (groups[1].root.pc - groups[0].root.pc + 12) % 12
    const shared = 6 - notes.length
    return `pair, ${APART[Math.min(apart, 12 - apart)]}${shared > 0 ? `, ${NOTES[shared]} shared` : ''}`
  }
  const kind = family === 'slip' ? 'slip, ' : ''
  const same = namesOf(overlay.set, overlay).find((o) => o.name !== overlay.name)
  return `${kind}${notes.length} notes${also > 0 && same ? `, = ${toGlyphs(same.name)}` : ''}`
}

/** Families of overlays, as they are offered. */
export const FAMILY_WORDS: Readonly<Record<FamilyName, string>> = {
  triad: 'triads',
  seventh: 'sevenths',
  ninth: 'ninths',
  quartal: 'fourths',
  pentatonic: 'pentatonics',
  mode: 'modes',
  bebop: 'bebop',
  blues: 'blues',
  symmetric: 'symmetric',
  slip: 'slips',
  changed: 'changed pentatonics',
  pair: 'pairs',
}

/** A MIDI number by its plain name and octave: `E♭ 4`. */
export const pitchName = (pitch: number): string =>
  `${toGlyphs(plainNote(pitchClass(pitch)).name)} ${Math.floor(pitch / 12) - 1}`
