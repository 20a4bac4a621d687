import type { Chart } from '../chart/chart.ts'
import { jobFromNext } from '../chart/job.ts'
import { readChart } from '../chart/read-chart.ts'
import type { Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { type Overlay, slipOverlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { isDegree } from '../pitch/degree.ts'
import { toAscii } from '../pitch/glyphs.ts'
import { readNote } from '../pitch/note.ts'
import type { FamilyName } from '../reading/candidates.ts'
import { homeOf, homeOverlay } from '../reading/home.ts'
import type { School } from '../reading/school.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'
import { capital } from './roots.ts'
import { overlaysWords, perhapsMeant, readSpokenQuestion, withoutAsking } from './spoken-question.ts'

/** What a player's words ask for. */
export type Question =
  | {
      readonly kind: 'reading'
      readonly overlay: Overlay
      readonly chord: Chord
      readonly next: Chord | null
      readonly sounding: Chord | null
    }
  | { readonly kind: 'material'; readonly overlay: Overlay }
  | { readonly kind: 'chord'; readonly chord: Chord }
  | { readonly kind: 'chart'; readonly chart: Chart; readonly text: string }
  | { readonly kind: 'pairs'; readonly chord: Chord; readonly next: Chord | null }
  | {
      readonly kind: 'overlays'
      readonly hold: readonly string[]
      /** Of which families; null for what a player uses here most, whatever it is. */
      readonly families: readonly FamilyName[] | null
      readonly chord: Chord
      readonly next: Chord | null
    }

const QUESTIONS = [
  'B minor pentatonic over Eb7 to Abmaj7',
  'Ab & Bb+ over Ab7',
  'E half-whole',
  'Ebmaj7',
  '| Dm7 G7 | Cmaj7 |',
]

interface Piece {
  readonly text: string
  readonly at: number
}

/** A chord in a question may begin with a small letter, as it is typed in a hurry; on a chart it may not. */
const forgivingChord = (text: string): Result<Chord, TextError> => {
  const asWritten = readChord(text)
  if (asWritten.ok || !/^[a-g]./.test(text)) return asWritten
  const raised = readChord(capital(text))
  return raised.ok ? raised : asWritten
}

/** The words after a keyword, with where they start; `what` says what was missing. */
const chordIn = (piece: Piece, what: string): Result<Chord, TextError> => {
  const lead = piece.text.length - piece.text.trimStart().length
  const body = piece.text.trim()
  if (!body) return fail({ code: 'empty', at: piece.at + piece.text.length, found: '', expected: [what] })
  const chord = forgivingChord(body)
  return chord.ok ? chord : fail(shiftError(chord.error, piece.at + lead))
}

const cut = (piece: Piece, word: RegExp): readonly [Piece, Piece | null] => {
  const match = word.exec(piece.text)
  if (!match) return [piece, null]
  const end = match.index + match[0].length
  return [
    { text: piece.text.slice(0, match.index), at: piece.at },
    { text: piece.text.slice(end), at: piece.at + end },
  ]
}

const STEP_WORDS: readonly (readonly [RegExp, number])[] = [
  [/^(a\s+)?(semitone|half\s?-?step)$/i, 1],
  [/^(a\s+)?(tone|whole\s?-?step)$/i, 2],
]

/** `slip +1`, `slip up a semitone`, `slip down a whole step`: semitones -6..+6, or null where it is no slip. */
const slipBy = (words: string): number | null => {
  const signed = /^\s*slip\s+([+-]?[1-6])\s*$/i.exec(toAscii(words))
  if (signed) return Number(signed[1])
  const said = /^\s*slip\s+(up|down)\s+(.+?)\s*$/i.exec(words)
  const size = STEP_WORDS.find(([pattern]) => pattern.test(said?.[2] ?? ''))?.[1]
  if (size === undefined) return null
  return said?.[1]?.toLowerCase() === 'down' ? -size : size
}

/** `slip +1`: the chord's home scale moved by that many semitones, -6..+6 and not 0. */
const slipOf = (words: string, chord: Chord, next: Chord | null, school: School): Overlay | null => {
  const by = slipBy(words)
  if (by === null) return null
  const home = homeOverlay(homeOf(chord, next, jobFromNext(chord, next), school).first)
  return slipOverlay(home, by, home.notes)
}

interface Over {
  readonly chord: Chord
  readonly next: Chord | null
  readonly sounding: Chord | null
}

const readWhere = (rest: Piece): Result<Over, TextError> => {
  const [beforeWhile, whileText] = cut(rest, /\s+while(?=\s|$)/i)
  const [chordText, nextText] = cut(beforeWhile, /\s+to(?=\s|$)/i)
  const chord = chordIn(chordText, 'a chord after over')
  if (!chord.ok) return chord
  const next = nextText === null ? ok(null) : chordIn(nextText, 'the next chord after to')
  if (!next.ok) return next
  const heard = whileText === null ? null : cut(whileText, /\s+sounds?\s*$/i)[0]
  const sounding = heard === null ? ok(null) : chordIn(heard, 'the chord that sounds')
  if (!sounding.ok) return sounding
  return ok({ chord: chord.value, next: next.value, sounding: sounding.value })
}

const WHAT_HOLDS = /^\s*what\s+(holds|has)\s*/i

/** The degrees after `what holds`, or the one that is none. */
const readDegrees = (material: Piece): Result<readonly string[], TextError> => {
  const [head = ''] = WHAT_HOLDS.exec(material.text) ?? []
  const held: string[] = []
  for (const word of material.text.slice(head.length).matchAll(/[^\s,]+/g)) {
    const name = toAscii(word[0])
    if (!isDegree(name))
      return fail({
        code: 'unknown_question',
        at: material.at + head.length + word.index,
        found: word[0],
        expected: ['a degree, such as b9, 9, #11 or 13'],
      })
    held.push(name)
  }
  if (held.length === 0)
    return fail({ code: 'empty', at: material.at + head.length, found: '', expected: ['degrees, such as 9 #11'] })
  return ok(held)
}

const readOver = (material: Piece, rest: Piece, school: School): Result<Question, TextError> => {
  const where = readWhere(rest)
  if (!where.ok) return where
  const { chord, next } = where.value
  if (/^\s*pairs\s*$/i.test(material.text)) return ok({ kind: 'pairs', chord, next })
  if (WHAT_HOLDS.test(material.text)) {
    const hold = readDegrees(material)
    return hold.ok ? ok({ kind: 'overlays', hold: hold.value, families: null, chord, next }) : hold
  }
  const slip = slipOf(material.text, chord, next, school)
  const overlay = slip ? ok(slip) : readOverlay(material.text)
  return overlay.ok ? ok({ kind: 'reading', overlay: overlay.value, ...where.value }) : overlay
}

/** Whether a slash is followed by a bare bass note, as in `F/A`: then it is a chord and not one thing over another. */
const readNoteOnly = (text: string): boolean => {
  const note = readNote(text, 0)
  return note.ok && note.value.end === text.length
}

/** A question in its plain form: an overlay over a chord (to the next one), a material, a chord, a chart between bar lines. */
const readPlain = (text: string, school: School): Result<Question, TextError> => {
  if (!text.trim()) return fail({ code: 'empty', at: 0, found: '', expected: QUESTIONS })
  if (text.trim().startsWith('|')) {
    const chart = readChart(text)
    return chart.ok ? ok({ kind: 'chart', chart: chart.value, text }) : chart
  }
  const [material, rest] = cut({ text, at: 0 }, /(?:^|\s)over(?=\s|$)/i)
  if (rest !== null) {
    const empty = material.text.trim() === ''
    return empty
      ? fail({ code: 'empty', at: 0, found: '', expected: ['what to lay over'] })
      : readOver(material, rest, school)
  }
  const lead = text.length - text.trimStart().length
  const slashed = /^\s*([^/\s]+)\/(\S+)\s*$/.exec(text)
  const under = slashed && readNoteOnly(slashed[2] ?? '') ? null : slashed
  if (under) {
    const from = text.indexOf('/') + 1
    const asked = readOver({ text: under[1] ?? '', at: 0 }, { text: text.slice(from), at: from }, school)
    if (asked.ok) return asked
  }
  const chord = forgivingChord(text.trim())
  if (chord.ok) return ok({ kind: 'chord', chord: chord.value })
  const overlay = readOverlay(text)
  if (overlay.ok) return ok({ kind: 'material', overlay: overlay.value })
  const looksLikeChord = !/\s/.test(text.trim())
  return fail(looksLikeChord ? shiftError(chord.error, lead) : overlay.error)
}

/**
 * Reads a question in a player's words: first in its plain form, then as it is spoken. What stays unclear is not
 * guessed: the error carries the place of the word that is wrong, and questions that were perhaps meant. `school`
 * decides what a slip moves.
 *
 *     question = overlay ["over" chord ["to" chord] ["while" chord "sounds"]]
 *              | "slip" (["+" | "-"] number | ("up" | "down") step) "over" chord ["to" chord]
 *              | "what holds" degree { degree } "over" chord ["to" chord]
 *              | "pairs over" chord ["to" chord] | chord | chart
 *
 * As it is spoken (`spoken-question.ts`): other words for each of these, roots by degree or by job, a material without a
 * root over a chord, chords in a row as a chart.
 */
export const readQuestion = (text: string, school: School): Result<Question, TextError> => {
  const plain = readPlain(text, school)
  if (plain.ok) return plain
  const spoken = readSpokenQuestion(text, school)
  if (spoken) return ok(spoken)
  const rest = withoutAsking(text)
  if (rest !== text && rest !== '') {
    const asked = readQuestion(rest, school)
    if (asked.ok) return asked
  }
  const meant = perhapsMeant(text, school)
  return meant.length > 0 ? fail({ ...plain.error, questions: meant }) : plain
}

const toNext = (next: Chord | null): string => (next === null ? '' : ` to ${next.symbol}`)

/** The question in its canonical words, ASCII: asking it again gives the same answer. */
export const printQuestion = (q: Question): string => {
  switch (q.kind) {
    case 'reading': {
      const sounds = q.sounding === null ? '' : ` while ${q.sounding.symbol} sounds`
      return `${q.overlay.name} over ${q.chord.symbol}${toNext(q.next)}${sounds}`
    }
    case 'pairs':
      return `pairs over ${q.chord.symbol}${toNext(q.next)}`
    case 'overlays':
      return `${overlaysWords(q)} over ${q.chord.symbol}${toNext(q.next)}`
    case 'material':
      return q.overlay.name
    case 'chord':
      return q.chord.symbol
    case 'chart':
      return q.text
  }
}
