import { MOST, printCount } from '../bounds.ts'
import { readNote } from '../pitch/note.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'
import type { Bar, Chart, Key, Metre, WrittenBar } from './chart.ts'
import { FEELS, type Feel, isFeel } from './feel.ts'
import { playedOrder } from './form.ts'
import { type BarsSoFar, readBars } from './read-bars.ts'
import { readMetre } from './read-metre.ts'

export const HEADERS = ['title', 'key', 'metre', 'tempo', 'pickup', 'feel'] as const
/** What may change between bars. */
const ANYWHERE: readonly string[] = ['title', 'key', 'metre']
const NO_BARS = ['bars, such as | Dm7 G7 | Cmaj7 |']

interface Header {
  title: string
  key: Key | null
  metre: Metre
  tempo: number
  pickup: number
  feel: Feel | undefined
}

const wrong = (at: number, found: string, expected: string): Result<never, TextError> =>
  fail({ code: 'bad_header', at, found, expected: [expected] })

/** `E`, `F# minor`, `Bbm`. */
export const readKey = (text: string): Result<Key, TextError> => {
  const tonic = readNote(text, 0)
  if (!tonic.ok) return tonic
  const rest = text.slice(tonic.value.end).trim()
  if (!/^(|m|min|minor|maj|major)$/.test(rest)) return wrong(tonic.value.end, rest, 'major or minor')
  return ok({ tonic: tonic.value.note, mode: /^m(in|inor)?$/.test(rest) ? 'minor' : 'major' })
}

const readNumber = (text: string, form: RegExp, from: number, to: number, what: string): Result<number, TextError> => {
  const n = Number(text)
  return form.test(text) && n >= from && n <= to ? ok(n) : wrong(0, text, `${what} from ${from} to ${to}`)
}

const READERS: {
  readonly [K in keyof Header]: (text: string) => Result<Header[K], TextError>
} = {
  title: ok,
  key: readKey,
  metre: readMetre,
  tempo: (text) => readNumber(text, /^\d{2,3}$/, 30, 320, 'a tempo'),
  pickup: (text) => readNumber(text, /^\d{1,2}(\.5)?$/, 0.5, 31, 'a pickup in beats'),
  feel: (text) => (isFeel(text.toLowerCase()) ? ok(text.toLowerCase() as Feel) : wrong(0, text, FEELS.join(', '))),
}

const readHeader = <K extends keyof Header>(header: Header, name: K, value: string): TextError | null => {
  const read = READERS[name](value)
  if (!read.ok) return read.error
  header[name] = read.value
  return null
}

const isHeader = (name: string): name is keyof Header => HEADERS.some((h) => h === name)

/** Takes one `name = value` line into the header; says what is wrong, placed in the whole text. */
const takeSetting = (
  header: Header,
  bars: readonly WrittenBar[],
  name: string,
  value: string,
  at: number,
  inValue: number,
) => {
  const known = name.toLowerCase()
  if (!isHeader(known)) return { code: 'unknown_header', at, found: name, expected: HEADERS } as const
  if (bars.length > 0 && !ANYWHERE.includes(known))
    return { code: 'bad_header', at, found: name, expected: [`${known} before the first bar`] } as const
  const error = readHeader(header, known, value)
  return error && shiftError(error, inValue)
}

const withoutComment = (line: string): string => {
  const at = line.indexOf('//')
  const kept = at < 0 ? line : line.slice(0, at)
  return kept.endsWith('\r') ? kept.slice(0, -1) : kept
}

/** `name = value`, where a line is one. */
const settingIn = (body: string): { readonly name: string; readonly value: string } | null => {
  const at = body.indexOf('=')
  const name = at < 0 ? '' : body.slice(0, at).trimEnd()
  return /^[A-Za-z]+$/.test(name) ? { name, value: body.slice(at + 1).trim() } : null
}

/** What stands between the signs of a section's line. */
const withoutEquals = (body: string): string => {
  let [from, to] = [0, body.length]
  while (body[from] === '=') from++
  while (to > from && body[to - 1] === '=') to--
  return body.slice(from, to).trim()
}

/** A chart that is longer as it is written than any may be as it is played. */
const tooLong = (bars: readonly WrittenBar[]): TextError | null => {
  const past = bars[MOST.bars]
  return past
    ? { code: 'bad_bar', at: past.text.at, found: '', expected: [`at most ${printCount(MOST.bars)} bars`] }
    : null
}

/** Nobody reads more of them. */
const MOST_ERRORS = 200

const playedBar = ({ section, metre, key, spots }: WrittenBar, written: number, number: number): Bar => ({
  ...{ number, section, written, metre, key },
  spots: spots.map((s) => ({ ...s, bar: number })),
})

/** What a text says as a chart, and everything that is wrong in it; the chart is null where it has no bar or no form. */
export interface Checked {
  readonly chart: Chart | null
  readonly errors: readonly TextError[]
}

/**
 * Reads a chart and goes on after an error, so that each is told at its place; its repeats are played out. Positions
 * are 0-based in the whole text. Source: theory page, section 7.
 *
 *     chart   = { line }                        a `//` begins a comment to the end of its line
 *     line    = setting | "==" section ["=="] | bars
 *     setting = ("title" | "key" | "metre" | "tempo" | "pickup" | "feel") "=" value      key and metre also between bars
 *     bars    = [barline] bar { barline bar } [barline]
 *     barline = "|" | "||" | "|]" | "|:" | ":|" | ":|:"
 *     bar     = [passes] [metre] ("%" | chord { chord | "/" }) [metre]    the second from the next bar on; also alone
 *     passes  = "1." | "1.2." | "1,2." | "1-3."
 *     chord   = symbol [":" beats] | "N.C." | "?"     a "/" lets the chord before it sound a beat longer
 */
export const checkChart = (text: string): Checked => {
  const header: Header = {
    title: 'Untitled',
    key: null,
    metre: { beats: 4, unit: 4 },
    tempo: 120,
    pickup: 0,
    feel: undefined,
  }
  const so: BarsSoFar = { bars: [], errors: [], waiting: false, section: null }
  let at = 0
  for (const raw of text.split('\n')) {
    if (tooLong(so.bars) || so.errors.length >= MOST_ERRORS) break
    const line = withoutComment(raw)
    const lead = line.length - line.trimStart().length
    const body = line.trim()
    const setting = settingIn(body)
    if (body.startsWith('==')) so.section = withoutEquals(body) || null
    else if (setting) {
      const inValue = at + lead + body.length - setting.value.length
      const error = takeSetting(header, so.bars, setting.name, setting.value, at + lead, inValue)
      if (error) so.errors.push(error)
    } else if (body) readBars(body, at + lead, header, so)
    at += raw.length + 1
  }
  const nothing = so.bars.length === 0 && so.errors.length === 0
  if (nothing) so.errors.push({ code: 'empty', at: text.length, found: '', expected: NO_BARS })
  const past = tooLong(so.bars)
  const order = past ? fail(past) : playedOrder(so.bars)
  if (!order.ok) so.errors.push(order.error)
  const zero = header.pickup > 0 ? 0 : 1
  const [opening] = so.bars
  const chart =
    order.ok && opening
      ? {
          ...header,
          metre: opening.metre,
          key: opening.key,
          written: so.bars,
          bars: order.value.map((w, i) => playedBar(so.bars[w] as WrittenBar, w, i + zero)),
        }
      : null
  return { chart, errors: so.errors.sort((a, b) => a.at - b.at) }
}

/** Reads a chart that must be right: the chart, or the first thing wrong in it. */
export const readChart = (text: string): Result<Chart, TextError> => {
  const { chart, errors } = checkChart(text)
  const [first] = errors
  if (first) return fail(first)
  if (!chart) throw new Error('a chart without errors has bars')
  return ok(chart)
}
