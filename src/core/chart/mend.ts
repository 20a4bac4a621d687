import { readHarmony } from '../chord/parse.ts'
import { USUAL_SPELLINGS } from '../chord/spellings.ts'
import type { TextError } from '../result.ts'
import { checkChart, HEADERS } from './read-chart.ts'

/** A change to a text: what stands from `at` to `end` becomes `becomes`. */
export interface TextMend {
  readonly at: number
  readonly end: number
  readonly becomes: string
}

const LONGEST_MENDED = 24

/** How many letters must be put in, left out or changed to make one word of the other. */
const wordDistance = (a: string, b: string): number => {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i)
  for (let i = 1; i <= a.length; i++) {
    const above = row
    row = [i]
    for (let j = 1; j <= b.length; j++)
      row.push(
        Math.min(
          (above[j] ?? 0) + 1,
          (row[j - 1] ?? 0) + 1,
          (above[j - 1] ?? 0) + (a[i - 1]?.toLowerCase() === b[j - 1]?.toLowerCase() ? 0 : 1),
        ),
      )
  }
  return row[b.length] ?? 0
}

const nearest = (word: string, among: readonly string[]): string | undefined =>
  [...among].sort((a, b) => wordDistance(word, a) - wordDistance(word, b))[0]

/** The word around a place, cut at blanks and bar lines. */
const wordAround = (text: string, at: number): TextMend => {
  const before = /[^\s|]*$/.exec(text.slice(0, at))?.[0] ?? ''
  const after = /^[^\s|]*/.exec(text.slice(at))?.[0] ?? ''
  return { at: at - before.length, end: at + after.length, becomes: before + after }
}

const ROOT_SLIPS: readonly (readonly [RegExp, (letter: string) => string])[] = [
  [/^h/i, () => 'B'],
  [/^[a-g]/, (letter) => letter.toUpperCase()],
]

/** Chords that a word may have been meant as, the likeliest first. */
const chordsMeant = (word: string): readonly string[] => {
  const slip = ROOT_SLIPS.find(([form]) => form.test(word))
  const rooted = slip ? slip[1](word.charAt(0)) + word.slice(1) : word
  const [, root = '', quality = ''] = /^([A-G](?:bb|##|[b#♭♯])?)(.*)$/.exec(rooted) ?? []
  if (!root) return []
  const shorter = Array.from({ length: quality.length }, (_, i) => quality.slice(0, i) + quality.slice(i + 1))
  const known = nearest(quality, USUAL_SPELLINGS)
  return [
    rooted,
    `${rooted})`,
    ...shorter.reverse().map((q) => root + q),
    ...(known === undefined ? [] : [root + known]),
  ]
}

const inBarLines = (text: string, at: number): TextMend => {
  const from = text.lastIndexOf('|', at - 1) + 1
  const to = /[|\n]/.exec(text.slice(at))?.index ?? text.length - at
  return { at: from, end: at + to, becomes: text.slice(from, at + to) }
}

const wordMend = (text: string, error: TextError): readonly TextMend[] => {
  const word = wordAround(text, error.at)
  const [bare = '', beats = ''] = word.becomes.split(/(?=:\d)/)
  if (bare.length > LONGEST_MENDED) return []
  return chordsMeant(bare)
    .filter((c) => readHarmony(c).ok)
    .map((c) => ({ ...word, becomes: c + beats }))
}

const barMend = (text: string, error: TextError): readonly TextMend[] => {
  const bar = inBarLines(text, error.at)
  const even = bar.becomes.replace(/:\d+(\.\d+)?(?=\s|$)/g, '').replace(/(\s)\/(?=\s|$)/g, '')
  const end = text.trimEnd().length
  const close = text[end - 1] === '|' ? end - 1 : end
  return [
    { at: error.at, end: error.at + 1, becomes: text[error.at] === '%' ? 'N.C.' : '' },
    { ...bar, becomes: even },
    { at: close, end, becomes: /\s$/.test(text.slice(0, close)) ? ':|' : ' :|' },
  ]
}

const OTHER_NAMES: Readonly<Record<string, string>> = { time: 'metre', meter: 'metre', bpm: 'tempo', name: 'title' }
const MENDED_VALUES = ['4/4', '3/4', '6/8', '120', '1', 'C', 'A minor']

const headerMend = (text: string, error: TextError): readonly TextMend[] => {
  const end = error.at + error.found.length
  if (error.code === 'unknown_header') {
    const meant = OTHER_NAMES[error.found.toLowerCase()] ?? nearest(error.found, HEADERS) ?? 'title'
    return [{ at: error.at, end, becomes: meant }]
  }
  const lineEnd = text.indexOf('\n', error.at)
  const whole = { at: error.at, end: lineEnd < 0 ? text.length : lineEnd }
  return MENDED_VALUES.map((becomes) => ({ ...whole, becomes }))
}

const MENDERS: Readonly<Partial<Record<TextError['code'], typeof wordMend>>> = {
  unknown_note: wordMend,
  unknown_quality: wordMend,
  contradiction: wordMend,
  unclosed: wordMend,
  bad_bar: barMend,
  unknown_header: headerMend,
  bad_header: headerMend,
}

export const mendedText = (text: string, mend: TextMend): string =>
  text.slice(0, mend.at) + mend.becomes + text.slice(mend.end)

/**
 * A change that takes this error away and brings no other: the first of what might have been meant that reads. Null
 * where none does.
 */
export const proposeMend = (text: string, error: TextError): TextMend | null => {
  const before = checkChart(text).errors.length
  return MENDERS[error.code]?.(text, error).find((m) => checkChart(mendedText(text, m)).errors.length < before) ?? null
}

/**
 * Repeat signs around the written bars that a stretch of the text touches, as changes; null where it touches none or the
 * chart would not read with them.
 */
export const repeatEdits = (text: string, at: number, end: number): readonly TextMend[] | null => {
  const bars = (checkChart(text).chart?.written ?? []).filter((b) => b.text.end >= at && b.text.at <= end)
  const [first, last] = [bars[0], bars.at(-1)]
  if (!first || !last) return null
  const before = text.lastIndexOf('|', first.text.at - 1)
  const after = text.indexOf('|', last.text.end)
  const close = after < 0 ? last.text.end : after
  const edits = [
    { at: before < 0 ? first.text.at : before, end: before < 0 ? first.text.at : before + 1, becomes: '|:' },
    { at: close, end: after < 0 ? close : close + 1, becomes: ':|' },
  ]
  const repeated = [...edits].reverse().reduce(mendedText, text)
  return checkChart(repeated).errors.length === 0 ? edits : null
}

/** Line and column of a place in a text, both from 1. */
export const lineAndColumn = (text: string, at: number): { readonly line: number; readonly column: number } => {
  const before = text.slice(0, at).split('\n')
  return { line: before.length, column: (before.at(-1)?.length ?? 0) + 1 }
}
