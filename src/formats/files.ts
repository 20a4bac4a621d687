import { strFromU8, unzipSync } from 'fflate'
import { type Chart, checkChart, lineAndColumn, ok, type Result } from '../core/index.ts'
import { readAbc, writeAbc } from './abc.ts'
import { type Imported, type Refusal, refuse } from './assemble.ts'
import type { ChartFormat } from './chart-formats.ts'
import { readMusicXml } from './read-musicxml.ts'
import { writeMusicXml } from './write-musicxml.ts'

/** A chart as a file of some format; as text it is the player's own, letter for letter. */
export const writeChart = (chart: Chart, text: string, format: ChartFormat): string =>
  format === 'musicxml' ? writeMusicXml(chart) : format === 'abc' ? writeAbc(chart) : text

export interface ReadFile extends Imported {
  readonly format: ChartFormat
}

const MOST_INSIDE = 10 * 1024 * 1024
const MOST_MEMBERS = 40
/** A tune or a chart is short; a longer text is something else. */
const MOST_TEXT = 1024 * 1024

/** The score inside a compressed MusicXML file. Members are bounded in count and size, before they are unpacked. */
const scoreInZip = (bytes: Uint8Array): Result<string, Refusal> => {
  let members = 0
  let size = 0
  try {
    const found = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        members++
        const wanted = /\.(xml|musicxml)$/i.test(name)
        if (wanted) size += originalSize
        return wanted && members <= MOST_MEMBERS && size <= MOST_INSIDE
      },
    })
    if (members > MOST_MEMBERS || size > MOST_INSIDE) return refuse('The packed file holds too much.')
    const container = found['META-INF/container.xml']
    const named = container && /full-path="([^"]+)"/.exec(strFromU8(container))?.[1]
    const name = named && found[named] ? named : Object.keys(found).find((n) => !n.startsWith('META-INF/'))
    const score = name === undefined ? undefined : found[name]
    return score && score.length <= MOST_INSIDE ? ok(strFromU8(score)) : refuse('The packed file holds no score.')
  } catch {
    return refuse('The packed file is damaged.')
  }
}

const decode = (bytes: Uint8Array): string | null => {
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null
  try {
    return new TextDecoder(wide ?? 'utf-8', { fatal: true }).decode(bytes)
  } catch {
    return null
  }
}

const readText = (text: string): Result<Imported, Refusal> => {
  const { chart, errors } = checkChart(text)
  const [first] = errors
  if (chart && !first) return ok({ chart, text, leftOut: [] })
  const { line, column } = lineAndColumn(text, first?.at ?? 0)
  const what = first?.found ? `“${first.found.slice(0, 40)}”` : 'something missing'
  return refuse(`Line ${line}, column ${column}: ${what}; expected ${first?.expected[0] ?? 'a chart'}.`)
}

const of = (format: ChartFormat, read: Result<Imported, Refusal>): Result<ReadFile, Refusal> =>
  read.ok ? ok({ format, ...read.value }) : read

/** Reads a chart from a file, by what is in it and not by its name. Nothing is kept. */
export const readChartFile = async (bytes: Uint8Array): Promise<Result<ReadFile, Refusal>> => {
  if (bytes.length === 0) return refuse('The file is empty.')
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    const score = scoreInZip(bytes)
    return score.ok ? of('musicxml', readMusicXml(score.value)) : score
  }
  const text = decode(bytes)?.replace(/^\uFEFF/, '')
  if (text === undefined) return refuse('The file is not text in UTF-8 or UTF-16, nor a packed score.')
  if (/^\s*</.test(text)) return of('musicxml', readMusicXml(text))
  if (text.length > MOST_TEXT) return refuse('The text is too long for a chart or a tune.')
  if (/^[XTMLKQ]:/m.test(text) && /^K:/m.test(text)) return of('abc', await readAbc(text))
  return of('text', readText(text))
}
