import type { Chord } from '../chord/chord.ts'
import { degree } from '../pitch/degree.ts'
import { isHardRoot, type Note, noteAbove, plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'

/** A root typed in a hurry, with its capital letter. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

/** A root told by its place above the chord, and the words that are left. */
export interface RelativeRoot {
  readonly up: number
  /** Letters above the chord's root, where the words name a degree. */
  readonly letters: number | null
  readonly rest: string
}

const ORDINALS: Readonly<Record<string, number>> = {
  root: 1,
  tonic: 1,
  second: 2,
  third: 3,
  fourth: 4,
  fifth: 5,
  sixth: 6,
  seventh: 7,
  ninth: 9,
  eleventh: 11,
  thirteenth: 13,
}
const SIGNS: Readonly<Record<string, string>> = {
  flat: 'b',
  sharp: '#',
  lowered: 'b',
  raised: '#',
  natural: '',
  perfect: '',
}

const PLACE = String.raw`(?:from|on|off|of|starting on|starting from|built on|at)\s+(?:the\s+)?(?:chord'?s\s+)?`
const NAMED = String.raw`((?:(?:flat|sharp|lowered|raised|natural|perfect|minor|major)\s+)?(?:root|tonic|second|third|fourth|fifth|sixth|seventh|ninth|eleventh|thirteenth))`
const NUMBERED = String.raw`([b#]{0,2}\d{1,2})(?:st|nd|rd|th)?`
const FROM_DEGREE = new RegExp(String.raw`(?:^|\s)${PLACE}(?:${NUMBERED}|${NAMED})(?=\s|$)`, 'i')

const SIZES: Readonly<Record<string, number>> = {
  half: 1,
  'half step': 1,
  halfstep: 1,
  semitone: 1,
  'minor second': 1,
  whole: 2,
  'whole step': 2,
  'whole tone': 2,
  tone: 2,
  'major second': 2,
  'minor third': 3,
  'major third': 4,
  fourth: 5,
  'perfect fourth': 5,
  tritone: 6,
  fifth: 7,
  'perfect fifth': 7,
  'minor sixth': 8,
  'major sixth': 9,
}
const SIZE = Object.keys(SIZES)
  .sort((a, b) => b.length - a.length)
  .map((s) => s.replace(' ', '[\\s-]+'))
  .join('|')
const STEP_AWAY = new RegExp(
  String.raw`(?:^|\s)(?:an?\s+|one\s+)?(${SIZE})\s+(above|below|up|down|higher|lower|away|off)(?=\s|$)`,
  'i',
)
const AWAY_STEP = new RegExp(String.raw`(?:^|\s)(up|down)\s+(?:an?\s+|one\s+)?(${SIZE})(?=\s|$)`, 'i')

const withoutMatch = (words: string, match: RegExpExecArray): string =>
  `${words.slice(0, match.index)} ${words.slice(match.index + match[0].length)}`.replace(/\s+/g, ' ').trim()

/** Semitones and letters of a degree: 3, 5 and 7 as the chord has them, other plain numbers natural. */
const degreeAbove = (name: string, { quality }: Chord): { readonly up: number; readonly letters: number } | null => {
  if (!/^(?:bb|b|#)?(?:1[0-3]|[1-9])$/.test(name)) return null
  const step = Number(name.replace(/[b#]/g, ''))
  const own = /^[b#]/.test(name) ? undefined : quality.own.find((d) => d.step === step || d.step + 7 === step)
  const d = own ?? degree(name)
  return { up: pitchClass(d.semitones), letters: (d.step - 1) % 7 }
}

const worded = (words: string): string => {
  const parts = words.toLowerCase().split(/\s+/)
  const step = ORDINALS[parts.at(-1) ?? ''] ?? 1
  const sign = parts.length < 2 ? '' : parts[0] === 'minor' ? 'b' : (SIGNS[parts[0] ?? ''] ?? '')
  return `${sign}${step}`
}

/** Semitones of a step in words, down negative: `half step`, `up`. */
export const stepSize = (size: string, way: string): number => {
  const by = SIZES[size.toLowerCase().replace(/[\s-]+/g, ' ')] ?? 0
  return /^(below|down|lower)$/i.test(way) ? -by : by
}

/** `a half step up`, `up a half step` anywhere in words: its semitones and what is left; null where there is none. */
export const stepIn = (words: string): { readonly by: number; readonly rest: string } | null => {
  const after = STEP_AWAY.exec(words)
  if (after) return { by: stepSize(after[1] ?? '', after[2] ?? ''), rest: withoutMatch(words, after) }
  const before = AWAY_STEP.exec(words)
  return before ? { by: stepSize(before[2] ?? '', before[1] ?? ''), rest: withoutMatch(words, before) } : null
}

/** A root told by a degree of the chord (`from the 3rd`, `on b9`) or by a step (`a tritone away`), before or after the rest. */
export const relativeRootIn = (words: string, chord: Chord): RelativeRoot | null => {
  const from = FROM_DEGREE.exec(words)
  if (from) {
    const found = degreeAbove(from[1] ?? worded(from[2] ?? ''), chord)
    return found && { ...found, rest: withoutMatch(words, from) }
  }
  const step = stepIn(words)
  return step && { up: pitchClass(step.by + 12), letters: null, rest: step.rest }
}

/** The note so far above the chord's root: spelled as its degree where that is plain. */
export const noteUp = (chord: Chord, up: number, letters: number | null): Note => {
  const spelled = letters === null ? (chord.heard[up] ?? chord.root) : noteAbove(chord.root, letters, up)
  const hard = Math.abs(spelled.alter) > 1 || isHardRoot(spelled)
  return hard ? plainNote(spelled.pc) : spelled
}
