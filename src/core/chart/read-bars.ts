import { readHarmony } from '../chord/parse.ts'
import { ticks } from '../pitch/units.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'
import { barTicks, beatTicks, type Metre, type Spot } from './chart.ts'

export interface DraftBar {
  readonly section: string | null
  readonly spots: readonly Omit<Spot, 'bar'>[]
}

interface Word {
  readonly text: string
  readonly at: number
}

/** Cuts a line at its bare bar lines; one inside brackets belongs to a polychord. */
const cutBars = (line: string, offset: number): readonly Word[] => {
  const pieces: Word[] = []
  let depth = 0
  let from = 0
  for (let i = 0; i <= line.length; i++) {
    const sign = line.charAt(i)
    if (sign === '(') depth++
    else if (sign === ')') depth = Math.max(0, depth - 1)
    else if (i === line.length || (sign === '|' && depth === 0)) {
      pieces.push({ text: line.slice(from, i), at: offset + from })
      from = i + 1
    }
  }
  const inner = pieces.filter((p, i) => !((i === 0 || i === pieces.length - 1) && p.text.trim() === ''))
  return inner.filter((p) => p.text.trim() !== '' || inner.length === 1)
}

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
const lengthsOf = (claims: readonly Claim[], metre: Metre, bar: Word): Result<readonly number[], TextError> => {
  const whole = barTicks(metre)
  const claimed = claims.reduce((sum, c) => sum + (c.beats ?? 0) * beatTicks(metre), 0)
  const open = claims.filter((c) => c.beats === null).length
  const left = whole - claimed
  if (left < 0 || (open === 0 && left !== 0) || (open > 0 && left <= 0))
    return fail({
      code: 'bad_bar',
      at: bar.at + (bar.text.length - bar.text.trimStart().length),
      found: bar.text.trim(),
      expected: [`${metre.beats} beats in the bar, not ${claimed / beatTicks(metre)}`],
    })
  return ok(claims.map((c) => (c.beats === null ? left / open : c.beats * beatTicks(metre))))
}

const readBar = (bar: Word, metre: Metre, before: DraftBar | null): Result<DraftBar, TextError> => {
  const words = wordsOf(bar)
  const [first] = words
  if (!first) return fail({ code: 'bad_bar', at: bar.at, found: '', expected: ['a chord, % or N.C.'] })
  if (first.text === '%') {
    const second = words[1]
    if (second) return fail({ code: 'bad_bar', at: second.at, found: second.text, expected: ['a bar line after %'] })
    if (!before) return fail({ code: 'bad_bar', at: first.at, found: '%', expected: ['a bar before it to repeat'] })
    const text = { at: first.at, end: first.at + 1 }
    return ok({ section: null, spots: before.spots.map((s) => ({ ...s, text })) })
  }
  const claims = claimsOf(words)
  if (!claims.ok) return claims
  const lengths = lengthsOf(claims.value, metre, bar)
  if (!lengths.ok) return lengths
  const spots: Omit<Spot, 'bar'>[] = []
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
  return ok({ section: null, spots })
}

/** Reads one line of bars that starts at `offset` in the whole text; `before` is the bar a leading `%` repeats. */
export const readBars = (
  line: string,
  offset: number,
  metre: Metre,
  before: DraftBar | null,
): Result<readonly DraftBar[], TextError> => {
  const repeat = /\|:|:\|/.exec(line)
  if (repeat)
    return fail({
      code: 'bad_bar',
      at: offset + repeat.index,
      found: repeat[0],
      expected: ['bars written out: repeats are not read yet'],
    })
  const bars: DraftBar[] = []
  for (const piece of cutBars(line, offset)) {
    const bar = readBar(piece, metre, bars.at(-1) ?? before)
    if (!bar.ok) return bar
    bars.push(bar.value)
  }
  return ok(bars)
}
