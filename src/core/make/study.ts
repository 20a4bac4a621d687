import { barTicks, type Metre, metreName } from '../chart/chart.ts'
import type { Chord } from '../chord/chord.ts'
import type { LineNote } from '../line/line.ts'
import { endOf, type Line } from '../line/line.ts'
import { chordInterval } from '../pitch/transpose.ts'
import { midi, ticks } from '../pitch/units.ts'
import { transposeChord } from '../transpose/chord.ts'
import { inKey, type KeyOrder, keysInOrder } from './keys.ts'

/** A line over chords of its own, to be practised as one: its chart's text, the whole line, what it is. */
export interface Study {
  readonly text: string
  readonly line: Line
  readonly title: string
}

export interface StudyAsked {
  /** What is taken through the keys: a line over a chord, and what it is called. */
  readonly line: Line
  readonly chord: Chord
  readonly name: string
  /** How many of the twelve, in which order. */
  readonly keys: number
  readonly order: KeyOrder
  readonly range: readonly [number, number]
  /** Where the bar begins in which the line does, and its metre. */
  readonly from: number
  readonly metre: Metre
}

/** A line through keys, each with the chord it stands over: one long line with its own chart. Source: make page, study. */
export const studyOf = (asked: StudyAsked, rng: () => number): Study => {
  const { line, chord, name, order, range, from, metre } = asked
  const whole = barTicks(metre)
  const end = line.reduce((most, n) => Math.max(most, endOf(n)), from)
  const bars = Math.max(1, Math.ceil((end - from) / whole))
  const keys = keysInOrder(order, rng).slice(0, asked.keys)
  const chords = keys.map((by) => (by === 0 ? chord : transposeChord(chord, chordInterval(by))))
  const through = keys.flatMap((by, i): readonly LineNote[] =>
    inKey(line, by, range).map((n) => ({
      at: ticks(n.at - from + i * bars * whole),
      for: n.for,
      pitch: midi(n.pitch),
    })),
  )
  const keysSaid = keys.length === 1 ? 'one key' : `${keys.length} keys by ${order === 'random' ? 'chance' : order}`
  const title = `${name} over ${chord.symbol}, ${keysSaid}`
  const cells = chords.map((c) => [c.symbol, ...Array.from({ length: bars - 1 }, () => '%')].join(' | '))
  return {
    text: `title = ${title.replaceAll('\n', ' ')}\nmetre = ${metreName(metre)}\n| ${cells.join(' | ')} |`,
    line: through,
    title,
  }
}
