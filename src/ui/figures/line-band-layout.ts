import { type Audit, barsAt, beatTicks, type Chart, type Metre } from '../../core/index.ts'
import { STAFF, staffHeight } from './staff-size.ts'

/** Sizes of the line's band, px: the same with and without tablature but for what lies under it. */
export const LINE = {
  number: 13,
  symbols: 32,
  staff: 36,
  gap: 12,
  rise: 94,
  tab: 34,
  stretches: 32,
  cells: 28,
  margin: STAFF.gutter + 6,
} as const

/** In a short window notes rise less high, so that the verdict has room. */
const LOW_RISE = 54

/** How a line is shown. */
export interface LineShown {
  readonly withTab: boolean
  readonly zoom: number
  /** Whether the window is short. */
  readonly low: boolean
  /** How far the staff stands lower, px, so that high notes do not touch the symbols. */
  readonly lift: number
}

/** Heights from the band's top, px. */
export interface LineHeights {
  readonly staff: number
  readonly home: number
  readonly cells: number
  readonly height: number
}

const riseOf = ({ low }: LineShown): number => (low ? LOW_RISE : LINE.rise)

const lineHeights = (shown: LineShown): LineHeights => {
  const staff = LINE.staff + shown.lift
  const home = staff + staffHeight(shown.withTab) + LINE.gap + riseOf(shown)
  const cells = home + LINE.stretches
  return { staff, home, cells, height: cells + LINE.cells }
}

const LEAST_NOTE = 34
const LEAST_PER_BEAT = 44
const MOST_PER_BEAT = 150
/** What each step of zoom makes of the width. */
const ZOOM = 1.35

export interface NoteBox {
  readonly x: number
  readonly y: number
  readonly w: number
}

/** A bar in time, ticks from the start of the line. */
export interface BarInTime {
  readonly number: number
  readonly metre: Metre
  readonly from: number
  readonly to: number
}

/** Where everything of a line stands: x by time, y by how far out. */
export interface LineLayout extends LineHeights {
  readonly width: number
  readonly notes: readonly NoteBox[]
  readonly bars: readonly BarInTime[]
  readonly x: (tick: number) => number
  /** The tick a place means. */
  readonly tickAt: (x: number) => number
}

/** The chart's bars, again and again until the line is over. */
const barsInTime = (chart: Chart, form: number, end: number): readonly BarInTime[] => {
  const once = barsAt(chart)
  const rounds = form > 0 ? Math.max(1, Math.ceil(end / form)) : 0
  return Array.from({ length: rounds }, (_, k) => k * form).flatMap((start) =>
    once.map(({ number, metre, from, to }) => ({ number, metre, from: start + from, to: start + to })),
  )
}

/** As wide as its shortest usual note needs to be read, wider or narrower by steps of zoom. */
export const layoutLine = ({ notes, timeline }: Audit, chart: Chart, shown: LineShown): LineLayout => {
  const beat = beatTicks(chart.metre)
  const lengths = notes.map((n, i) => Math.min(n.for, (notes[i + 1]?.at ?? Infinity) - n.at)).sort((a, b) => a - b)
  const usual = lengths[Math.floor(lengths.length / 10)] ?? beat
  const perBeat = Math.min(MOST_PER_BEAT, Math.max(LEAST_PER_BEAT, (LEAST_NOTE * beat) / usual)) * ZOOM ** shown.zoom
  const x = (tick: number): number => LINE.margin + (tick / beat) * perBeat
  const end = Math.max(timeline.length, ...notes.map((n) => n.at + n.for))
  const heights = lineHeights(shown)
  const top = (fade: number): number => heights.home - LINE.tab - (fade / 100) * (riseOf(shown) - LINE.tab)
  return {
    ...heights,
    width: x(end) + LINE.margin,
    x,
    tickAt: (px) => Math.max(0, ((px - LINE.margin) / perBeat) * beat),
    bars: barsInTime(chart, timeline.length, end),
    notes: notes.map((n, i) => {
      const until = Math.min(n.at + n.for, notes[i + 1]?.at ?? Infinity)
      return { x: x(n.at), y: top(n.fade), w: Math.max(14, x(until) - x(n.at) - 3) }
    }),
  }
}

/** A bracket under the home line for a stretch, and the slope by which it lands; a cut one stays open. */
export const stretchPath = (layout: LineLayout, from: number, to: number, on: number | null): string => {
  const [a, b] = [layout.notes[from], layout.notes[to]]
  if (!a || !b) return ''
  const y = layout.home + 14
  const end = b.x + b.w
  const landing = on === null ? null : layout.notes[on]
  const open = `M${a.x},${y - 8} V${y} H${end}`
  return landing ? `${open} L${landing.x + Math.min(landing.w, 20) / 2},${layout.home + 3}` : `${open} v-4 m0,8 v-4`
}

/** A bracket for a cell, under the stretches. */
export const cellPath = (layout: LineLayout, from: number, to: number): string => {
  const [a, b] = [layout.notes[from], layout.notes[to]]
  if (!a || !b) return ''
  const y = layout.cells + 8
  return `M${a.x + 1},${y - 6} V${y} H${b.x + b.w - 1} v-6`
}

const PER_LETTER = 7.2

/** A name where there is room for it, shortened where there is room for half of it. */
export const fitting = (name: string, width: number): string => {
  const most = Math.floor(width / PER_LETTER)
  if (name.length <= most) return name
  return most >= 4 ? `${name.slice(0, most - 1)}…` : ''
}
