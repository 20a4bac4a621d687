import { type Chart, type Chord, type Result, readChart, readChord, readKey, type TextError } from '../core/index.ts'
import { fieldProblem, Problem } from './problems.ts'

/** What the core could not read, as a problem that points into the field it came from; whole questions come first. */
export const textProblem = (path: string, e: TextError): Problem => {
  const expected = e.expected.length > 0 ? `expected ${e.expected.join(', ')}` : 'not expected here'
  const message = e.found ? `“${e.found}” is not understood: ${expected}` : `something is missing: ${expected}`
  const could = [...(e.questions ?? []), ...e.expected]
  return new Problem('bad_text', message, [{ path, message, at: e.at, found: e.found, expected: could }])
}

/** The value, or the core's error as a problem at `path`. */
export const orProblem = <T>(path: string, result: Result<T, TextError>): T => {
  if (!result.ok) throw textProblem(path, result.error)
  return result.value
}

export const chordAt = (path: string, symbol: string): Chord => orProblem(path, readChord(symbol))
/** The next chord, or null where none was given. */
export const nextAt = (path: string, symbol: string): Chord | null => (symbol === '' ? null : chordAt(path, symbol))

/** A chart's text, in the key that was sent with it or its own. */
export const chartAt = (text: string, key: string): Chart => {
  const chart = orProblem('text', readChart(text))
  return key === '' ? chart : { ...chart, key: orProblem('key', readKey(key)) }
}

/** A bar that the chart does not have. */
export const noBar = (path: string, bar: number, first: number, last: number): Problem =>
  fieldProblem(path, `There is no bar ${bar}: they are counted from ${first} to ${last}.`, String(bar), [
    `${first} to ${last}`,
  ])
