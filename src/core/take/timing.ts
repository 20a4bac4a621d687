import { TICKS_PER_QUARTER } from '../pitch/units.ts'
import type { PlayedNote } from './played.ts'

/** How one note stands to the beat: the moment it was meant for, in ticks, and by how much it missed it (early below 0). */
export interface Placed {
  readonly at: number
  readonly meant: number
  readonly off: number
  /** Where it is written: on the grid, its eighths even. */
  readonly written: number
}

/** A take against the beat. Ticks; `swing` where the second of a pair of eighths falls, per cent of the pair; null where none was played. */
export interface Timing {
  /** What all of it is early (below 0) or late by. */
  readonly shift: number
  readonly swing: number | null
  readonly notes: readonly Placed[]
  readonly mean: number
  /** Standard deviation. */
  readonly spread: number
}

const QUARTER = TICKS_PER_QUARTER

/** Parts of a quarter that notes stand on, with what it costs to take a note for one: `u` is the swung or even eighth. */
type Part = 'beat' | 'eighth' | 'third' | 'two thirds' | 'quarter' | 'three quarters'
const COST: Readonly<Record<Part, number>> = {
  beat: 0,
  eighth: 0.3,
  third: 2,
  'two thirds': 2,
  quarter: 2,
  'three quarters': 2,
}
const partsOf = (u: number): readonly (readonly [Part, number])[] => [
  ['beat', 0],
  ['eighth', u],
  ['third', 1 / 3],
  ['two thirds', 2 / 3],
  ['quarter', 1 / 4],
  ['three quarters', 3 / 4],
  ['beat', 1],
]

/** As a part of a quarter: what a hand misses by. Farther than four of it counts no more. */
const MISS = 0.045
const FARTHEST = 16

interface Nearest {
  readonly name: Part
  readonly cost: number
  readonly meant: number
}

const nearestPart = (at: number, parts: ReturnType<typeof partsOf>): Nearest => {
  const begin = Math.floor(at / QUARTER)
  const within = at / QUARTER - begin
  let [best, cost] = [parts[0] as readonly [Part, number], Number.POSITIVE_INFINITY]
  for (const part of parts) {
    const own = ((within - part[1]) / MISS) ** 2 + COST[part[0]]
    if (own < cost) [best, cost] = [part, own]
  }
  return { name: best[0], cost, meant: Math.round((begin + best[1]) * QUARTER) }
}

const isPlain = ({ name }: Nearest): boolean => name === 'beat' || name === 'eighth'

/** Triplets and sixteenths are three notes or more in a quarter: a lone note beside the eighths is an eighth that missed. */
const meantIn = (onsets: readonly number[], u: number): readonly Nearest[] => {
  const parts = partsOf(u)
  const eighths = parts.filter(([name]) => name === 'beat' || name === 'eighth')
  return onsets.map((at, i) => {
    const own = nearestPart(at, parts)
    if (isPlain(own)) return own
    const near = onsets.slice(Math.max(0, i - 3), i + 4).filter((o) => Math.abs(o - at) < 0.8 * QUARTER)
    return near.length > 3 ? own : nearestPart(at, eighths)
  })
}

const WRITTEN: Readonly<Record<Part, number>> = {
  ...{ beat: 0, eighth: 1 / 2, third: 1 / 3, 'two thirds': 2 / 3, quarter: 1 / 4, 'three quarters': 3 / 4 },
}
/** Where a note would be written, swung eighths as even ones. */
const writtenAt = ({ name, meant }: Nearest): number => {
  const begin = name === 'beat' ? meant : Math.floor(meant / QUARTER) * QUARTER
  return Math.round(begin + WRITTEN[name] * QUARTER)
}

const LEAST_APART = QUARTER / 4
/** No two notes are written on one moment: the later one moves on. */
const apart = (written: readonly number[]): readonly number[] => {
  let before = Number.NEGATIVE_INFINITY
  return written.map((at) => {
    before = at > before ? at : before + LEAST_APART
    return before
  })
}

const MOST_SHIFT = 0.26
const SHIFT_STEP = 0.01
/** What a shift costs by itself, so that off-beats alone are not taken for late beats. */
const SHIFT_SIZE = 0.12
const SHIFT_WEIGHT = 0.15
/** Eighths from even to dotted. */
const EIGHTHS = [0.5, 0.54, 0.58, 0.62, 0.66, 0.7, 0.74] as const
/** So many notes tell. */
const ENOUGH = 400

const stepsTo = (most: number, step: number): readonly number[] =>
  Array.from({ length: 2 * Math.round(most / step) + 1 }, (_, i) => (i - Math.round(most / step)) * step)

const thinned = (onsets: readonly number[]): readonly number[] => {
  const every = Math.ceil(onsets.length / ENOUGH)
  return every <= 1 ? onsets : onsets.filter((_, i) => i % every === 0)
}

/** The shift and the place of the eighths that explain the onsets best. */
const bestFit = (onsets: readonly number[]): { readonly shift: number; readonly u: number } => {
  const told = thinned(onsets)
  let best = { shift: 0, u: 0.5, cost: Number.POSITIVE_INFINITY }
  for (const u of EIGHTHS) {
    const parts = partsOf(u)
    for (const shift of stepsTo(MOST_SHIFT, SHIFT_STEP)) {
      let cost = told.length * SHIFT_WEIGHT * (shift / SHIFT_SIZE) ** 2
      for (const at of told) {
        cost += Math.min(FARTHEST, nearestPart(at - shift * QUARTER, parts).cost)
        if (cost >= best.cost) break
      }
      if (cost < best.cost) best = { shift, u, cost }
    }
  }
  return { shift: best.shift * QUARTER, u: best.u }
}

const meanOf = (all: readonly number[]): number => all.reduce((a, b) => a + b, 0) / Math.max(1, all.length)
export const spreadOf = (all: readonly number[]): number => {
  const mean = meanOf(all)
  return Math.sqrt(meanOf(all.map((x) => (x - mean) ** 2)))
}

const FEWEST_PAIRS = 4

/** Where the eighths between the beats really fall. */
const swingFound = (onsets: readonly number[], u: number): number | null => {
  const eighths = meantIn(onsets, u).flatMap(({ name, meant }, i) => {
    const begin = Math.floor(meant / QUARTER) * QUARTER
    return name === 'eighth' ? [((onsets[i] as number) - begin) / QUARTER] : []
  })
  return eighths.length < FEWEST_PAIRS ? null : Math.round(meanOf(eighths) * 100)
}

/**
 * A take against the beat: what all of it is early or late by, the swing found, and each note's own miss, measured from
 * where its eighth swings. Pure.
 */
export const timingOf = (notes: readonly PlayedNote[]): Timing => {
  const onsets = notes.map((n) => n.at)
  const { shift, u } = bestFit(onsets)
  const steady = onsets.map((at) => at - shift)
  const swing = swingFound(steady, u)
  const meant = meantIn(steady, swing === null ? u : swing / 100)
  const written = apart(meant.map(writtenAt))
  const placed = meant.map((m, i): Placed => {
    const at = onsets[i] as number
    return { at, meant: m.meant, off: at - m.meant, written: written[i] as number }
  })
  const misses = placed.map((p) => p.off)
  return { shift, swing, notes: placed, mean: meanOf(misses), spread: spreadOf(misses) }
}
