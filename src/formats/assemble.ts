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
  readMetre,
  type Ticks,
  ticks,
  type WrittenBar,
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
  readonly metre: Metre
  readonly key: Key | null
  readonly length: Ticks
  readonly chords: readonly FoundChord[]
}

export interface Found {
  readonly title: string
  /** Quarters a minute. */
  readonly quarters: number
  readonly feel?: Feel | undefined
  readonly bars: readonly FoundBar[]
}

/** Quarters a minute in beats of a metre, as far as a chart can have them. */
export const tempoOf = (quarters: number, { unit }: Metre): number =>
  Math.round(Math.min(320, Math.max(30, (quarters * unit) / 4)))

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
  /** That a chart was looked for, and no chord is in it. */
  readonly code?: 'no_chords'
}

export const refuse = (why: string, code?: Refusal['code']): Result<never, Refusal> =>
  fail({ why, ...(code ? { code } : {}) })

/** Beats of a first bar that is shorter than its metre, as far as a pickup can be; else 0. */
const pickupOf = ({ length, metre }: FoundBar): number => {
  const beats = length / beatTicks(metre)
  return length > 0 && length < barTicks(metre) && Number.isInteger(beats * 2) ? beats : 0
}

/** The metre of a bar that is longer or shorter than the one it stands in; null where its length is none of whole beats. */
const ownMetre = ({ length, metre }: FoundBar): Metre | null => {
  const read = readMetre(`${length / beatTicks(metre)}/${metre.unit}`)
  return read.ok ? read.value : null
}

/** Chords of one bar with what still sounds before the first, each as long as until the next. */
const spotsOf = (bar: FoundBar, metre: Metre, whole: Ticks, before: Harmony) => {
  const inside = bar.chords.filter((c) => c.at < whole).sort((a, b) => a.at - b.at)
  const distinct = inside.filter((c, i) => inside[i + 1]?.at !== c.at)
  const all = distinct[0]?.at === 0 ? distinct : [{ at: ticks(0), chord: before }, ...distinct]
  return all.map(({ at, chord }, i) => ({
    at,
    chord,
    metre,
    length: ticks((all[i + 1]?.at ?? whole) - at),
    text: { at: 0, end: 0 },
  }))
}

/** Whether a last bar is as much shorter as the pickup is long: that is how a form with a pickup ends. */
const isRest = (bars: readonly FoundBar[], at: number, pickup: number, whole: number): boolean =>
  at === bars.length - 1 && pickup > 0 && (bars[at]?.length ?? 0) + (bars[0]?.length ?? 0) === whole

/** The bars of a chart, each as long as its metre says, with what that leaves out. */
const barsOf = (bars: readonly FoundBar[], pickup: number, leftOut: LeftOut[]): readonly WrittenBar[] => {
  let before: Harmony = NO_CHORD
  return bars.map((bar, i) => {
    const isPickup = i === 0 && pickup > 0
    const isWhole = bar.length === 0 || bar.length === barTicks(bar.metre)
    const own = isPickup || isWhole || isRest(bars, i, pickup, barTicks(bar.metre)) ? bar.metre : ownMetre(bar)
    const metre = own ?? bar.metre
    const length = isPickup ? bar.length : barTicks(metre)
    if (!own) leftOut.push({ what: `the length of bar ${i + 1}`, why: 'it holds no whole number of beats' })
    const beyond = bar.chords.filter((c) => c.at >= length)
    if (beyond.length > 0)
      leftOut.push({
        what: `${beyond.map((c) => c.chord.symbol).join(', ')} in bar ${i + 1}`,
        why: 'the bar is longer than the metre',
      })
    const spots = spotsOf(bar, metre, length, before)
    before = spots.at(-1)?.chord ?? before
    const { section, opens, closes, endings, key } = bar
    return { section, opens, closes, endings, metre, key, spots, text: { at: 0, end: 0 } }
  })
}

/**
 * Makes chart text of what a file holds. A bar without a chord goes on with the one before, or rests at the start.
 * Refused where no chart holds so much.
 */
export const assemble = (found: Found, leftOut: readonly LeftOut[]): Result<Imported, Refusal> => {
  const { bars, leftOut: unsaid } = writtenOut(found.bars)
  const [opening] = bars
  if (!opening) return refuse('It has no bars.')
  if (bars.length > MOST.bars) return refuse(`It has more than ${printCount(MOST.bars)} bars.`)
  const told = [...leftOut, ...unsaid]
  const pickup = pickupOf(opening)
  const written = barsOf(bars, pickup, told)
  const { metre, key } = written[0] as WrittenBar
  const { title, feel, quarters } = found
  const head = { title, feel, metre, key, pickup, tempo: tempoOf(quarters, metre) }
  const text = printChart({ ...head, written, bars: [] })
  const read = readChart(text)
  if (read.ok) return ok({ chart: read.value, text, leftOut: told })
  const plain = written.map((b) => ({ ...b, opens: false, closes: false, endings: [] }))
  const flat = printChart({ ...head, written: plain, bars: [] })
  const again = readChart(flat)
  if (!again.ok) return refuse(`It makes no chart: expected ${again.error.expected[0] ?? 'a chart'}.`)
  return ok({
    chart: again.value,
    text: flat,
    leftOut: [...told, { what: 'the repeats', why: 'they do not fit together' }],
  })
}
