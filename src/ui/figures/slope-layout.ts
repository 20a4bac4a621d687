import {
  degreeOver,
  type Exit,
  type HeardNote,
  has,
  heardOver,
  type NoteReading,
  type PcSet,
  pitchClass,
  type Reading,
  TARGET_KINDS,
  targetsOf,
} from '../../core/index.ts'

/** Sizes of the slope view in its own units; the picture scales as a whole. */
export interface SlopeSizes {
  readonly column: number
  /** Width of the half column at each side. */
  readonly half: number
  /** Where the plot begins, under the degree names. */
  readonly top: number
  /** Height of a fade of 100. */
  readonly plot: number
  readonly tab: { readonly w: number; readonly h: number }
  /** From the home line down to the next chord's tones. */
  readonly gap: number
  readonly target: { readonly w: number; readonly h: number }
  readonly mark: { readonly w: number; readonly h: number }
  /** Type: note names, degrees, signs. */
  readonly type: { readonly name: number; readonly degree: number; readonly mark: number }
}

export const WIDE: SlopeSizes = {
  column: 40,
  half: 28,
  top: 40,
  plot: 262,
  tab: { w: 36, h: 48 },
  gap: 36,
  target: { w: 36, h: 42 },
  mark: { w: 24, h: 16 },
  type: { name: 16, degree: 14.5, mark: 14 },
}

/** For a telephone on the stand: drawn at its own size on 336 px. */
export const NARROW: SlopeSizes = {
  column: 24,
  half: 12,
  top: 34,
  plot: 240,
  tab: { w: 23, h: 42 },
  gap: 30,
  target: { w: 23, h: 38 },
  mark: { w: 21, h: 14 },
  type: { name: 13, degree: 13, mark: 13 },
}

const NARROW_BELOW = 430
const LEAST_PLOT = 44
const LEAST_TYPE = 13

/** Sizes that fill a box of that many px at its own scale, so that type keeps its size; `scale` 2 is for the stand. */
export const sizesFor = (w: number, h: number, scale = 1): SlopeSizes => {
  if (w < NARROW_BELOW) {
    const { half, top, tab, gap, target } = NARROW
    const plot = Math.max(LEAST_PLOT, h - top - tab.h - gap - target.h - 2)
    return { ...NARROW, column: (w - 2 * half) / 13, plot }
  }
  const base = WIDE
  const half = base.half * scale
  const column = (w - 2 * half) / 13
  const tabW = Math.min(base.tab.w * scale * 1.15, column - 4)
  const of = (box: { readonly w: number; readonly h: number }) => ({ w: box.w * scale, h: box.h * scale })
  const type = {
    name: Math.max(LEAST_TYPE, Math.min(base.type.name * scale, tabW * 0.5)),
    degree: Math.max(LEAST_TYPE, Math.min(base.type.degree * scale, tabW * 0.42)),
    mark: base.type.mark * scale,
  }
  const [top, gap] = [base.top * scale, base.gap * scale]
  const tab = { w: tabW, h: base.tab.h * scale }
  const target = { w: tabW, h: base.target.h * scale }
  const plot = Math.max(LEAST_PLOT, h - top - gap - tab.h - target.h - 2)
  return { column, half, top, plot, tab, gap, target, mark: of(base.mark), type }
}

export const widthOf = (s: SlopeSizes): number => s.half * 2 + s.column * 13
export const homeOf = (s: SlopeSizes): number => s.top + s.tab.h + s.plot
export const heightOf = (s: SlopeSizes): number => homeOf(s) + s.gap + s.target.h + 2

const tabY = (s: SlopeSizes, fade: number): number => homeOf(s) - s.tab.h - (fade / 100) * s.plot

export interface Point {
  readonly x: number
  readonly y: number
}
export interface TabBox {
  readonly note: NoteReading
  readonly x: number
  readonly y: number
}
export interface TargetBox {
  readonly pc: number
  readonly name: string
  readonly degree: string
  readonly guide: boolean
  readonly x: number
  readonly w: number
}
export interface Slide {
  readonly index: number
  readonly exit: Exit
  readonly best: boolean
  readonly from: Point
  readonly to: Point
  readonly path: string
}
export interface Mark {
  readonly index: number
  readonly text: string
  readonly x: number
  readonly y: number
}
export interface SlopeLayout {
  readonly columns: readonly { readonly degree: string; readonly x: number; readonly own: boolean }[]
  readonly tabs: readonly TabBox[]
  readonly targets: readonly TargetBox[]
  readonly slides: readonly Slide[]
  readonly marks: readonly Mark[]
  /** Notes without a way out: a short cut stub under their tab. */
  readonly stubs: readonly Point[]
  /** A thread through each triad of a pair. */
  readonly threads: readonly string[]
}

/** Centre of a column, -1 (left half) to 13 (right half). */
const columnX = (s: SlopeSizes, column: number): number => {
  if (column < 0) return s.half / 2
  if (column > 12) return widthOf(s) - s.half / 2
  return s.half + s.column * (column + 0.5)
}

const STEP: Readonly<Record<Exit['how'], number>> = {
  held: 0,
  'half step down': -1,
  'half step up': 1,
  'whole step down': -2,
  'whole step up': 2,
}
export const EXIT_SIGN: Readonly<Record<Exit['how'], string>> = {
  held: '=',
  'half step down': '↓½',
  'half step up': '↑½',
  'whole step down': '↓1',
  'whole step up': '↑1',
}

/** The root stands at the left, or at the right where its best way goes down, so that the path stays in the picture. */
const columnOf = (n: NoteReading, up: number): number => (up === 0 && n.exits[0]?.how.endsWith('down') ? 12 : up)

const arrival = (column: number, exit: Exit): number => Math.max(-1, Math.min(13, column + STEP[exit.how]))

const curve = (from: Point, to: Point): string => {
  const drop = to.y - from.y
  return `M${from.x},${from.y} C${from.x},${from.y + drop * 0.5} ${to.x},${to.y - drop * 0.5} ${to.x},${to.y}`
}

/** A point on the curve above at t 0..1. */
const onCurve = (from: Point, to: Point, t: number): Point => {
  const s = 1 - t
  const bend = 3 * s * t * t + t ** 3
  const fall = 1.5 * s * s * t + 1.5 * s * t * t + t ** 3
  return { x: from.x + (to.x - from.x) * bend, y: from.y + (to.y - from.y) * fall }
}

interface Box {
  readonly x: number
  readonly y: number
  readonly w: number
  readonly h: number
}
const overlap = (a: Box, b: Box): boolean => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h

const boxAt = ({ x, y }: Point, mark: SlopeSizes['mark']): Box => ({ x: x - mark.w / 2, y: y - mark.h / 2, ...mark })

/** Puts each exit's sign beside its path, at the first place along it where it covers no tab and no other sign. */
const placeMarks = (sizes: SlopeSizes, slides: readonly Slide[], blocked: readonly Box[]): readonly Mark[] => {
  const taken: Box[] = [...blocked]
  const half = sizes.mark.w / 2
  return slides
    .filter((s) => s.best)
    .map((slide) => {
      const sides = slide.exit.how.endsWith('down') ? [-1, 1] : [1, -1]
      const spots = [0.1, 0.16, 0.24, 0.34, 0.45, 0.56, 0.67, 0.78].flatMap((t) => {
        const on = onCurve(slide.from, slide.to, t)
        return sides.map((side) => ({ x: on.x + side * (half + 5), y: on.y + 6 }))
      })
      const free = spots.find(
        (p) => p.x > half && p.x < widthOf(sizes) - half && !taken.some((b) => overlap(b, boxAt(p, sizes.mark))),
      )
      const { x, y } = free ?? (spots[0] as Point)
      taken.push(boxAt({ x, y }, sizes.mark))
      return { index: slide.index, text: EXIT_SIGN[slide.exit.how], x, y }
    })
}

const targetBoxes = (sizes: SlopeSizes, reading: Reading, used: ReadonlySet<number>): readonly TargetBox[] => {
  const { chord, next, school } = reading.place
  if (next === null) return []
  const targets = targetsOf(next, school)
  const boxes: TargetBox[] = []
  for (let column = -1; column <= 13; column++) {
    const pc = pitchClass(chord.root.pc + column)
    const up = pitchClass(pc - next.root.pc)
    const kind = TARGET_KINDS[targets.kinds[up] ?? 0]
    const side = column < 0 || column > 12
    if (!kind || kind === 'none' || ((kind === 'extension' || side) && !used.has(column))) continue
    const w = side ? sizes.half - 2 : sizes.target.w
    boxes.push({
      pc,
      name: heardOver(next, pc).name,
      degree: degreeOver(next, pc),
      guide: kind === 'guide',
      x: columnX(sizes, column) - w / 2,
      w,
    })
  }
  return boxes
}

/** Through the middles of a triad's tabs, left to right. */
const threadOf = (tabs: readonly TabBox[], set: PcSet, { tab }: SlopeSizes): string =>
  tabs
    .filter((t) => has(set, t.note.note.pc))
    .sort((a, b) => a.x - b.x)
    .map((t, i) => `${i === 0 ? 'M' : 'L'}${t.x + tab.w / 2},${t.y + tab.h / 2}`)
    .join(' ')

/** Where a note over the reading's chord lights: at its degree and its height, on the tab of the same note if there is one. */
export const litAt = (reading: Reading, { tabs }: SlopeLayout, sizes: SlopeSizes, note: HeardNote): Point | null => {
  const root = note.sounding?.place?.chord.root.pc
  if (root === undefined) return null
  const up = pitchClass(note.pitch - root)
  const own = tabs.find((t) => pitchClass(t.note.note.pc - reading.place.chord.root.pc) === up)
  return { x: own?.x ?? columnX(sizes, up) - sizes.tab.w / 2, y: tabY(sizes, note.fade) }
}

/** Where everything in the slope view stands, as plain data. Names and degrees are ASCII. */
export const layoutSlope = (reading: Reading, sizes: SlopeSizes = WIDE): SlopeLayout => {
  const { chord, next } = reading.place
  const columns = Array.from({ length: 13 }, (_, i) => ({
    degree: degreeOver(chord, chord.root.pc + i),
    x: columnX(sizes, i),
    own: ((chord.ownSet >> (i % 12)) & 1) === 1,
  }))
  const ups = reading.notes.map((n) => pitchClass(n.note.pc - chord.root.pc))
  const columnsOf = reading.notes.map((n, i) => columnOf(n, ups[i] ?? 0))
  const tabs = reading.notes.map(
    (note, i): TabBox => ({
      note,
      x: columnX(sizes, columnsOf[i] ?? 0) - sizes.tab.w / 2,
      y: tabY(sizes, note.fade),
    }),
  )
  const slides = reading.notes.flatMap((note, index) =>
    note.exits.map((exit, rank): Slide => {
      const column = columnsOf[index] ?? 0
      const from = { x: columnX(sizes, column), y: (tabs[index]?.y ?? 0) + sizes.tab.h }
      const to = { x: columnX(sizes, arrival(column, exit)), y: homeOf(sizes) + sizes.gap }
      return { index, exit, best: rank === 0, from, to, path: curve(from, to) }
    }),
  )
  const used = new Set(slides.filter((s) => s.best).map((s) => arrival(columnsOf[s.index] ?? 0, s.exit)))
  const blocked = tabs.map((t) => ({ x: t.x, y: t.y, w: sizes.tab.w + 3, h: sizes.tab.h }))
  const stubs =
    next === null
      ? []
      : tabs.filter((t) => t.note.exits.length === 0).map((t) => ({ x: t.x + sizes.tab.w / 2, y: t.y + sizes.tab.h }))
  return {
    columns,
    tabs,
    targets: targetBoxes(sizes, reading, used),
    slides,
    marks: placeMarks(sizes, slides, blocked),
    stubs,
    threads: (reading.overlay.groups ?? []).map((g) => threadOf(tabs, g.set, sizes)),
  }
}
