import {
  barTicks,
  beatTicks,
  type Chart,
  type Feel,
  fail,
  type Harmony,
  type Jumps,
  type Key,
  type Metre,
  MOST,
  NO_CHORD,
  ok,
  printChart,
  printCount,
  type Result,
  readChart,
  type Ticks,
  ticks,
} from '../core/index.ts'
import { writtenOut } from './written-out.ts'

/** A chord symbol where a file has it; `at` counts from its bar's start. */
export interface FoundChord {
  readonly at: Ticks
  readonly chord: Harmony
}

/** A bar as a file has it. */
export interface FoundBar {
  readonly section: string | null
  readonly opens: boolean
  readonly closes: boolean
  readonly endings: readonly number[]
  readonly jumps?: Jumps | undefined
  readonly length: Ticks
  readonly chords: readonly FoundChord[]
}

export interface Found {
  readonly title: string
  readonly key: Key | null
  readonly metre: Metre
  readonly tempo: number
  readonly feel?: Feel | undefined
  readonly bars: readonly FoundBar[]
}

/** A tempo in beats of the metre, as far as a chart can have it. */
export const tempoOf = (beats: number): number => Math.round(Math.min(320, Math.max(30, beats)))

/** Something a file holds that a chart cannot, and why. */
export interface LeftOut {
  readonly what: string
  readonly why: string
}

/** What was read from a file, before anything is kept: chart text that reads, and what was left out of it. */
export interface Imported {
  readonly chart: Chart
  readonly text: string
  readonly leftOut: readonly LeftOut[]
  /** The tunes a file holds, where it holds several, and which of them this is, from 0. */
  readonly tunes?: readonly { readonly title: string; readonly chords: number }[]
  readonly chosen?: number
}

/** Why a file is refused, in words for the player. */
export interface Refusal {
  readonly why: string
}

export const refuse = (why: string): Result<never, Refusal> => fail({ why })

const firstBar = (bar: FoundBar | undefined, metre: Metre): number => {
  const beats = (bar?.length ?? 0) / beatTicks(metre)
  const isShort = bar !== undefined && bar.length > 0 && bar.length < barTicks(metre)
  return isShort && Number.isInteger(beats * 2) ? beats : 0
}

/** Chords of one bar with what still sounds before the first, each as long as until the next. */
const spotsOf = (bar: FoundBar, whole: Ticks, before: Harmony) => {
  const inside = bar.chords.filter((c) => c.at < whole).sort((a, b) => a.at - b.at)
  const distinct = inside.filter((c, i) => inside[i + 1]?.at !== c.at)
  const all = distinct[0]?.at === 0 ? distinct : [{ at: ticks(0), chord: before }, ...distinct]
  return all.map(({ at, chord }, i) => ({
    at,
    chord,
    length: ticks((all[i + 1]?.at ?? whole) - at),
    text: { at: 0, end: 0 },
  }))
}

/** Whether a last bar is as much shorter as the pickup is long: that is how a form with a pickup ends. */
const isRest = (bars: readonly FoundBar[], at: number, pickup: number, whole: number): boolean =>
  at === bars.length - 1 && pickup > 0 && (bars[at]?.length ?? 0) + (bars[0]?.length ?? 0) === whole

/**
 * Makes chart text of what a file holds. A bar without a chord goes on with the one before, or rests at the start.
 * Refused where no chart holds so much.
 */
export const assemble = (found: Found, leftOut: readonly LeftOut[]): Result<Imported, Refusal> => {
  const { bars: asFound, ...head } = found
  const { bars, leftOut: unsaid } = writtenOut(asFound, barTicks(found.metre))
  if (bars.length > MOST.bars) return refuse(`It has more than ${printCount(MOST.bars)} bars.`)
  const told = [...leftOut, ...unsaid]
  const pickup = firstBar(bars[0], head.metre)
  const whole = barTicks(head.metre)
  let before: Harmony = NO_CHORD
  const written = bars.map((bar, i) => {
    const length = i === 0 && pickup > 0 ? bar.length : whole
    const beyond = bar.chords.filter((c) => c.at >= length)
    if (beyond.length > 0)
      told.push({
        what: `${beyond.map((c) => c.chord.symbol).join(', ')} in bar ${i + 1}`,
        why: 'the bar is longer than the metre',
      })
    else if (bar.length !== length && bar.length > 0 && i > 0 && !isRest(bars, i, pickup, length))
      told.push({ what: `the length of bar ${i + 1}`, why: 'a chart has one metre throughout' })
    const spots = spotsOf(bar, length, before)
    before = spots.at(-1)?.chord ?? before
    const { section, opens, closes, endings } = bar
    return { section, opens, closes, endings, spots, text: { at: 0, end: 0 } }
  })
  const text = printChart({ ...head, pickup, written, bars: [] })
  const read = readChart(text)
  if (read.ok) return ok({ chart: read.value, text, leftOut: told })
  const plain = written.map((b) => ({ ...b, opens: false, closes: false, endings: [] }))
  const flat = printChart({ ...head, pickup, written: plain, bars: [] })
  const again = readChart(flat)
  if (!again.ok) return refuse(`It makes no chart: expected ${again.error.expected[0] ?? 'a chart'}.`)
  return ok({
    chart: again.value,
    text: flat,
    leftOut: [...told, { what: 'the repeats', why: 'they do not fit together' }],
  })
}
