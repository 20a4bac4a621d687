import { type Chart, checkChart, lineAndColumn, ok, type Result } from '../core/index.ts'
import { readAbc, writeAbc } from './abc.ts'
import { type Imported, type Refusal, refuse } from './assemble.ts'
import type { ChartFormat } from './chart-formats.ts'
import { isAbc, openFile } from './open-file.ts'
import { readMidiChart } from './read-midi-chart.ts'
import { readMusicXml } from './read-musicxml.ts'
import { writeMusicXml } from './write-musicxml.ts'

/** A chart as a file of some format; as text it is the player's own, letter for letter. */
export const writeChart = (chart: Chart, text: string, format: ChartFormat): string =>
  format === 'musicxml' ? writeMusicXml(chart) : format === 'abc' ? writeAbc(chart) : text

export interface ReadFile extends Imported {
  readonly format: ChartFormat | 'midi'
}

/** A tune or a chart is short; a longer text is something else. */
const MOST_TEXT = 1024 * 1024

const readText = (text: string): Result<Imported, Refusal> => {
  const { chart, errors } = checkChart(text)
  const [first] = errors
  if (chart && !first) return ok({ chart, text, leftOut: [] })
  const { line, column } = lineAndColumn(text, first?.at ?? 0)
  const what = first?.found ? `“${first.found.slice(0, 40)}”` : 'something missing'
  return refuse(`Line ${line}, column ${column}: ${what}; expected ${first?.expected[0] ?? 'a chart'}.`)
}

const of = (format: ReadFile['format'], read: Result<Imported, Refusal>): Result<ReadFile, Refusal> =>
  read.ok ? ok({ format, ...read.value }) : read

/** Reads a chart from a file, by what is in it and not by its name. Nothing is kept. Of several tunes `tune` is read, from 0. */
export const readChartFile = async (
  bytes: Uint8Array,
  tune: number | null = null,
): Promise<Result<ReadFile, Refusal>> => {
  const opened = openFile(bytes)
  if (!opened.ok) return opened
  const { kind, text } = opened.value
  if (kind === 'midi') return of('midi', readMidiChart(bytes))
  if (kind === 'xml') return of('musicxml', readMusicXml(text))
  if (text.length > MOST_TEXT) return refuse('The text is too long for a chart or a tune.')
  return isAbc(text) ? of('abc', await readAbc(text, tune)) : of('text', readText(text))
}
