import { readNote } from '../pitch/note.ts'
import { fail, ok, type Result, shiftError, type TextError } from '../result.ts'
import type { Chart, Key, Metre } from './chart.ts'
import { type DraftBar, readBars } from './read-bars.ts'

const HEADERS = ['title', 'key', 'metre', 'tempo'] as const
const NO_BARS = ['bars, such as | Dm7 G7 | Cmaj7 |']

interface Header {
  title: string
  key: Key | null
  metre: Metre
  tempo: number
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

const readMetre = (text: string): Result<Metre, TextError> => {
  const match = /^(\d{1,2})\/(2|4|8|16)$/.exec(text)
  const beats = Number(match?.[1])
  if (!match || beats < 1 || beats > 32) return wrong(0, text, 'a metre such as 4/4 or 7/4')
  return ok({ beats, unit: Number(match[2]) as Metre['unit'] })
}

const readHeader = (header: Header, name: string, value: string): Result<true, TextError> => {
  switch (name) {
    case 'title':
      header.title = value
      return ok(true)
    case 'key': {
      const key = readKey(value)
      if (!key.ok) return key
      header.key = key.value
      return ok(true)
    }
    case 'metre': {
      const metre = readMetre(value)
      if (!metre.ok) return metre
      header.metre = metre.value
      return ok(true)
    }
    case 'tempo': {
      const tempo = Number(value)
      if (!/^\d{2,3}$/.test(value) || tempo < 30 || tempo > 320) return wrong(0, value, 'a tempo from 30 to 320')
      header.tempo = tempo
      return ok(true)
    }
    default:
      return fail({ code: 'unknown_header', at: 0, found: name, expected: HEADERS })
  }
}

/**
 * Reads a chart: header lines, `== Section` lines and bars. Errors carry the 0-based position in the whole text.
 * Source: theory page, section 7 (its plain part: repeats with endings are not read yet and are an error).
 */
export const readChart = (text: string): Result<Chart, TextError> => {
  const header: Header = { title: 'Untitled', key: null, metre: { beats: 4, unit: 4 }, tempo: 120 }
  const bars: DraftBar[] = []
  let section: string | null = null
  let at = 0
  for (const raw of text.split('\n')) {
    const line = raw.replace(/\/\/.*$/, '').replace(/\r$/, '')
    const lead = line.length - line.trimStart().length
    const body = line.trim()
    const setting = /^([A-Za-z]+)\s*=\s*(.*)$/.exec(body)
    if (body.startsWith('==')) section = body.replace(/^=+\s*|\s*=+$/g, '') || null
    else if (setting) {
      const [, name = '', value = ''] = setting
      const read = readHeader(header, name.toLowerCase(), value)
      const inValue = at + lead + body.length - value.length
      if (!read.ok) return fail(shiftError(read.error, read.error.code === 'unknown_header' ? at + lead : inValue))
    } else if (body) {
      const read = readBars(body, at + lead, header.metre, bars.at(-1) ?? null)
      if (!read.ok) return read
      for (const [i, bar] of read.value.entries()) bars.push({ ...bar, section: i === 0 ? section : null })
      section = null
    }
    at += raw.length + 1
  }
  if (bars.length === 0) return fail({ code: 'empty', at: text.length, found: '', expected: NO_BARS })
  return ok({ ...header, bars: bars.map((b, i) => numbered(b, i + 1)) })
}

const numbered = (draft: DraftBar, number: number): Chart['bars'][number] => ({
  number,
  section: draft.section,
  spots: draft.spots.map((s) => ({ ...s, bar: number })),
})
