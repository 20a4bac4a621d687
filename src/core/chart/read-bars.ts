import { MOST } from '../bounds.ts'
import { readHarmony } from '../chord/parse.ts'
import { type Ticks, ticks } from '../pitch/units.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'
import { beatTicks, type Metre, type WrittenBar } from './chart.ts'
import { cutBars, type Piece, type Word } from './cut-bars.ts'

type WrittenSpot = WrittenBar['spots'][number]

const wordsOf = (bar: Word): readonly Word[] => {
  const words: Word[] = []
  for (const match of bar.text.matchAll(/(?:\([^)]*\)?|[^\s(])+/g))
    words.push({ text: match[0], at: bar.at + match.index })
  return words
}

interface Claim {
  readonly word: Word
  /** Beats asked for by `:3` or by slashes, or null for an even share. */
  readonly beats: number | null
}

const claimsOf = (words: readonly Word[]): Result<readonly Claim[], TextError> => {
  const claims: { word: Word; beats: number | null }[] = []
  const slashes = words.some((w) => w.text === '/')
  for (const word of words) {
    const last = claims.at(-1)
    if (word.text === '/') {
      if (!last) return fail({ code: 'bad_bar', at: word.at, found: '/', expected: ['a chord before its slashes'] })
      last.beats = (last.beats ?? 1) + 1
      continue
    }
    const match = /^(.+?):(\d+(?:\.\d+)?)$/.exec(word.text)
    claims.push(
      match
        ? { word: { text: match[1] ?? '', at: word.at }, beats: Number(match[2]) }
        : { word, beats: slashes ? 1 : null },
    )
  }
  return ok(claims)
}

/** Onsets in ticks: claimed beats first, the rest of the bar shared evenly; what does not fill the bar is an error. */
const lengthsOf = (
  claims: readonly Claim[],
  metre: Metre,
  whole: Ticks,
  bar: Word,
): Result<readonly number[], TextError> => {
  const claimed = claims.reduce((sum, c) => sum + (c.beats ?? 0) * beatTicks(metre), 0)
  const open = claims.filter((c) => c.beats === null).length
  const left = whole - claimed
  if (left < 0 || (open === 0 && left !== 0) || (open > 0 && left <= 0))
    return fail({
      code: 'bad_bar',
      at: bar.at + (bar.text.length - bar.text.trimStart().length),
      found: bar.text.trim(),
      expected: [`${whole / beatTicks(metre)} beats in the bar, not ${claimed / beatTicks(metre)}`],
    })
  return ok(claims.map((c) => (c.beats === null ? left / open : c.beats * beatTicks(metre))))
}

const readSpots = (
  bar: Word,
  metre: Metre,
  whole: Ticks,
  before: WrittenBar | null,
): Result<readonly WrittenSpot[], TextError> => {
  const words = wordsOf(bar)
  const [first] = words
  if (!first) return fail({ code: 'bad_bar', at: bar.at, found: '', expected: ['a chord, % or N.C.'] })
  if (first.text === '%') {
    const second = words[1]
    if (second) return fail({ code: 'bad_bar', at: second.at, found: second.text, expected: ['a bar line after %'] })
    if (!before) return fail({ code: 'bad_bar', at: first.at, found: '%', expected: ['a bar before it to repeat'] })
    const text = { at: first.at, end: first.at + 1 }
    return ok(before.spots.map((s) => ({ ...s, text })))
  }
  const claims = claimsOf(words)
  if (!claims.ok) return claims
  const past = claims.value[MOST.chordsInBar]
  if (past)
    return fail({
      code: 'bad_bar',
      at: past.word.at,
      found: past.word.text,
      expected: [`at most ${MOST.chordsInBar} chords in a bar`],
    })
  const lengths = lengthsOf(claims.value, metre, whole, bar)
  if (!lengths.ok) return lengths
  const spots: WrittenSpot[] = []
  let at = 0
  for (const [i, { word }] of claims.value.entries()) {
    const chord = readHarmony(word.text)
    if (!chord.ok) return fail(shiftError(chord.error, word.at))
    const end = at + (lengths.value[i] ?? 0)
    spots.push({
      chord: chord.value,
      at: ticks(at),
      length: ticks(ticks(end) - ticks(at)),
      text: { at: word.at, end: word.at + word.text.length },
    })
    at = end
  }
  return ok(spots)
}

/** What reading has come to: the bars so far, and whether a `|:` at a line's end waits for its bar. */
export interface BarsSoFar {
  readonly bars: WrittenBar[]
  readonly errors: TextError[]
  waiting: boolean
  section: string | null
}

const boundsOf = ({ text, at }: Piece) => ({
  at: at + text.length - text.trimStart().length,
  end: at + text.trimEnd().length,
})

/**
 * Reads one line of bars that starts at `offset` in the whole text and adds them; a bar that does not read adds an
 * error and stands empty. `whole` is a bar's length; `first` that of the chart's very first bar.
 */
export const readBars = (
  line: string,
  offset: number,
  metre: Metre,
  whole: Ticks,
  first: Ticks,
  to: BarsSoFar,
): void => {
  const { pieces, waiting } = cutBars(line, offset, to.waiting)
  for (const piece of pieces) {
    const spots = readSpots(piece, metre, to.bars.length === 0 ? first : whole, to.bars.at(-1) ?? null)
    if (!spots.ok) to.errors.push(spots.error)
    const { opens, closes, endings } = piece
    to.bars.push({
      section: to.section,
      opens,
      closes,
      endings,
      spots: spots.ok ? spots.value : [],
      text: boundsOf(piece),
    })
    to.section = null
  }
  const last = to.bars.at(-1)
  if (pieces.length === 0 && last && /:\|/.test(line)) to.bars[to.bars.length - 1] = { ...last, closes: true }
  to.waiting = waiting
}
