import { type Audit, beatTicks, type Chart } from '../../core/index.ts'

/** Sizes of the line's band, px from its top. */
export const LINE = {
  symbols: 26,
  top: 58,
  rise: 130,
  tab: 34,
  brackets: 40,
  numbers: 22,
  margin: 20,
  get home() {
    return this.top + this.rise
  },
  get number() {
    return this.home + this.brackets + 14
  },
  get height() {
    return this.home + this.brackets + this.numbers
  },
} as const

const LEAST_NOTE = 34
const LEAST_PER_BEAT = 44
const MOST_PER_BEAT = 150

export interface NoteBox {
  readonly x: number
  readonly y: number
  readonly w: number
}

/** Where everything of a line stands: x by time, y by how far out. */
export interface LineLayout {
  readonly width: number
  readonly notes: readonly NoteBox[]
  readonly x: (tick: number) => number
}

const fadeTop = (fade: number): number => LINE.home - LINE.tab - (fade / 100) * (LINE.rise - LINE.tab)

/** As wide as its shortest usual note needs to be read. */
export const layoutLine = ({ notes, timeline }: Audit, chart: Chart): LineLayout => {
  const beat = beatTicks(chart.metre)
  const lengths = notes.map((n, i) => Math.min(n.for, (notes[i + 1]?.at ?? Infinity) - n.at)).sort((a, b) => a - b)
  const usual = lengths[Math.floor(lengths.length / 10)] ?? beat
  const perBeat = Math.min(MOST_PER_BEAT, Math.max(LEAST_PER_BEAT, (LEAST_NOTE * beat) / usual))
  const x = (tick: number): number => LINE.margin + (tick / beat) * perBeat
  const end = Math.max(timeline.length, ...notes.map((n) => n.at + n.for))
  return {
    width: x(end) + LINE.margin,
    x,
    notes: notes.map((n, i) => {
      const until = Math.min(n.at + n.for, notes[i + 1]?.at ?? Infinity)
      return { x: x(n.at), y: fadeTop(n.fade), w: Math.max(14, x(until) - x(n.at) - 3) }
    }),
  }
}

/** A bracket under the home line for a stretch, and the slope by which it lands; a cut one stays open. */
export const stretchPath = (layout: LineLayout, from: number, to: number, on: number | null): string => {
  const [a, b] = [layout.notes[from], layout.notes[to]]
  if (!a || !b) return ''
  const y = LINE.home + 16
  const end = b.x + b.w
  const landing = on === null ? null : layout.notes[on]
  const open = `M${a.x},${y - 8} V${y} H${end}`
  return landing ? `${open} L${landing.x + Math.min(landing.w, 20) / 2},${LINE.home + 3}` : `${open} v-4 m0,8 v-4`
}
