import type { Chart } from '../chart/chart.ts'
import { jobFromNext } from '../chart/job.ts'
import { readChart } from '../chart/read-chart.ts'
import type { Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { type Overlay, slipOverlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { homeOf, homeOverlay } from '../reading/home.ts'
import type { School } from '../reading/school.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'

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

/** The words after a keyword, with where they start; `what` says what was missing. */
const chordIn = (piece: Piece, what: string): Result<Chord, TextError> => {
  const lead = piece.text.length - piece.text.trimStart().length
  const body = piece.text.trim()
  if (!body) return fail({ code: 'empty', at: piece.at + piece.text.length, found: '', expected: [what] })
  const chord = readChord(body)
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

/** `slip +1`: the chord's home scale moved by that many semitones, -6..+6 and not 0. */
const slipOf = (words: string, chord: Chord, next: Chord | null, school: School): Overlay | null => {
  const match = /^\s*slip\s+([+-]?[1-6])\s*$/i.exec(words)
  if (!match) return null
  const home = homeOverlay(homeOf(chord, next, jobFromNext(chord, next), school).first)
  return slipOverlay(home, Number(match[1]), home.notes)
}

const readOver = (material: Piece, rest: Piece, school: School): Result<Question, TextError> => {
  const [beforeWhile, whileText] = cut(rest, /\s+while(?=\s|$)/i)
  const [chordText, nextText] = cut(beforeWhile, /\s+to(?=\s|$)/i)
  const chord = chordIn(chordText, 'a chord after over')
  if (!chord.ok) return chord
  const next = nextText === null ? ok(null) : chordIn(nextText, 'the next chord after to')
  if (!next.ok) return next
  const heard = whileText === null ? null : cut(whileText, /\s+sounds?\s*$/i)[0]
  const sounding = heard === null ? ok(null) : chordIn(heard, 'the chord that sounds')
  if (!sounding.ok) return sounding
  const slip = slipOf(material.text, chord.value, next.value, school)
  const overlay = slip ? ok(slip) : readOverlay(material.text)
  if (!overlay.ok) return overlay
  return ok({ kind: 'reading', overlay: overlay.value, chord: chord.value, next: next.value, sounding: sounding.value })
}

/**
 * Reads a question in a player's words: an overlay over a chord (to the next one), a material, a chord, or a chart
 * between bar lines. Errors carry the place of the word that is wrong. `school` decides what `slip` moves.
 */
export const readQuestion = (text: string, school: School): Result<Question, TextError> => {
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
  const chord = readChord(text.trim())
  if (chord.ok) return ok({ kind: 'chord', chord: chord.value })
  const overlay = readOverlay(text)
  if (overlay.ok) return ok({ kind: 'material', overlay: overlay.value })
  const looksLikeChord = !/\s/.test(text.trim())
  return fail(looksLikeChord ? shiftError(chord.error, lead) : overlay.error)
}

/** The question in its canonical words, ASCII: asking it again gives the same answer. */
export const printQuestion = (q: Question): string => {
  switch (q.kind) {
    case 'reading': {
      const to = q.next === null ? '' : ` to ${q.next.symbol}`
      const sounds = q.sounding === null ? '' : ` while ${q.sounding.symbol} sounds`
      return `${q.overlay.name} over ${q.chord.symbol}${to}${sounds}`
    }
    case 'material':
      return q.overlay.name
    case 'chord':
      return q.chord.symbol
    case 'chart':
      return q.text
  }
}
