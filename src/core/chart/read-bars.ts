import { MOST } from '../bounds.ts'
import { readHarmony } from '../chord/parse.ts'
import { type Ticks, ticks } from '../pitch/units.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'
import { barTicks, beatTicks, type Key, type Metre, type WrittenBar } from './chart.ts'
import { cutBars, type Piece, type Word } from './cut-bars.ts'
import { readMetre } from './read-metre.ts'

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

/** The chords of a bar in one of another length: shared evenly where they were; null where they were not. */
const repeated = (spots: readonly WrittenSpot[], metre: Metre, whole: Ticks): readonly WrittenSpot[] | null => {
  const sum = spots.reduce((all, s) => all + s.length, 0)
  if (sum === whole) return spots.map((s) => ({ ...s, metre }))
  const isEven = spots.every((s) => Math.abs(s.length - sum / spots.length) <= 1)
  const edge = (i: number): number => ticks((i * whole) / spots.length)
  return isEven
    ? spots.map((s, i) => ({ ...s, metre, at: ticks(edge(i)), length: ticks(edge(i + 1) - edge(i)) }))
    : null
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
    const again = repeated(before.spots, metre, whole)
    const length = before.spots.reduce((sum, s) => sum + s.length, 0) / beatTicks(metre)
    if (!again)
      return fail({
        ...{ code: 'bad_bar', at: first.at, found: '%' },
        expected: [`a bar of ${whole / beatTicks(metre)} beats before it to repeat, not of ${length}`],
      })
    const text = { at: first.at, end: first.at + 1 }
    return ok(again.map((s) => ({ ...s, text })))
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
      metre,
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

/** What holds for bars that follow: a metre among them changes it. `pickup` is in beats of the first bar. */
export interface Ground {
  metre: Metre
  readonly key: Key | null
  readonly pickup: number
}

const takeMetre = (said: Word | null, ground: Ground, to: BarsSoFar): void => {
  const read = said && readMetre(said.text)
  if (read?.ok) ground.metre = read.value
  else if (read) to.errors.push(shiftError(read.error, said.at))
}

/**
 * Reads one line of bars that starts at `offset` in the whole text and adds them; a bar that does not read adds an
 * error and stands empty. A metre with nothing beside it is no bar.
 */
export const readBars = (line: string, offset: number, ground: Ground, to: BarsSoFar): void => {
  const { pieces, waiting } = cutBars(line, offset, to.waiting)
  for (const piece of pieces) {
    takeMetre(piece.metre, ground, to)
    const { opens, closes, endings } = piece
    const { metre, key, pickup } = ground
    const last = to.bars.at(-1)
    const isBar = piece.text.trim() !== '' || !(piece.metre || piece.then) || endings.length > 0
    if (isBar) {
      const whole = barTicks(metre)
      const length = last || pickup === 0 ? whole : ticks(Math.min(pickup * beatTicks(metre), whole))
      const spots = readSpots(piece, metre, length, last ?? null)
      if (!spots.ok) to.errors.push(spots.error)
      to.bars.push({
        section: to.section,
        ...{ opens, closes, endings, metre, key },
        spots: spots.ok ? spots.value : [],
        text: boundsOf(piece),
      })
      to.section = null
    } else if (closes && last) to.bars[to.bars.length - 1] = { ...last, closes }
    takeMetre(piece.then, ground, to)
  }
  const last = to.bars.at(-1)
  if (pieces.length === 0 && last && /:\|/.test(line)) to.bars[to.bars.length - 1] = { ...last, closes: true }
  to.waiting = waiting
}
