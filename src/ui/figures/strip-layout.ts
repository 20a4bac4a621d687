import type { AnalysedSpot, Chain, Reading } from '../../core/index.ts'

/** A spot of the strip: read with the overlay that is tried there or lies there, or its home scale. N.C. has no reading. */
export interface StripSpot extends AnalysedSpot {
  /** 1-based, with its fraction. */
  readonly beat: number
  readonly reading: Reading | null
  readonly by: 'overlay' | 'route' | 'home'
}

/** Sizes of the strip, px from its top. */
export interface StripSizes {
  readonly symbols: number
  readonly top: number
  readonly rise: number
  readonly home: number
  readonly height: number
}
const NUMBERS = 26
/** Beside the first chord and the last. */
export const STRIP_MARGIN = 24
const sized = (symbols: number, top: number, rise: number): StripSizes => ({
  ...{ symbols, top, rise },
  home: top + rise,
  height: top + rise + NUMBERS,
})
export const STRIP = sized(34, 48, 54)
/** In a short window. */
export const LOW_STRIP = sized(28, 36, 28)

const WIDTH_PER_SIGN = 12.5
const LEAST_PER_BEAT = 36
const MOST_PER_BEAT = 64
const STEEPEST = 8

export interface StripBox {
  readonly x: number
  readonly w: number
  readonly fade: number
  readonly landing: number | null
  /** The filled step, and its slope down to the line where it lands. */
  readonly path: string
}

export interface StripLayout {
  readonly width: number
  readonly boxes: readonly StripBox[]
}

const perBeat = (spots: readonly StripSpot[], beats: (s: StripSpot) => number): number => {
  const needed = spots.map((s) => (s.spot.chord.symbol.length * WIDTH_PER_SIGN + 14) / beats(s))
  return Math.min(
    MOST_PER_BEAT,
    needed.reduce((most, n) => Math.max(most, n), LEAST_PER_BEAT),
  )
}

/** Steepness is the landing: at 100 the slope is `STEEPEST` px wide, at 0 there is none and the step is cut off. */
const stepPath = ({ home, rise }: StripSizes, x: number, w: number, fade: number, landing: number | null): string => {
  const y = home - Math.max(3, (fade / 100) * rise)
  const run = landing === null || landing === 0 ? 0 : Math.min(w * 0.6, STEEPEST + (100 - landing) * 0.5)
  return `M${x},${home} V${y} H${x + w - run} L${x + w},${run === 0 ? y : home} V${home} Z`
}

/** One box per spot, x in px from the strip's left edge, each as wide as its beats. */
export const layoutStrip = (
  spots: readonly StripSpot[],
  beats: (s: StripSpot) => number,
  sizes: StripSizes = STRIP,
): StripLayout => {
  const px = perBeat(spots, beats)
  let x: number = STRIP_MARGIN
  const boxes = spots.map((s): StripBox => {
    const w = beats(s) * px
    const from = x
    x += w
    const fade = s.reading?.fade ?? 0
    const landing = s.reading?.landing ?? null
    return { x: from, w, fade, landing, path: s.reading ? stepPath(sizes, from, w, fade, landing) : '' }
  })
  return { width: x + STRIP_MARGIN, boxes }
}

export interface StripBracket {
  readonly path: string
  readonly x: number
  readonly w: number
  /** Whether the chain comes to its goal: drawn through, else broken. */
  readonly arrives: boolean
}

const TICK = 5
const GAP = 3

/** A bracket under the bar numbers for each chain, from its first chord to the end of its last. */
export const layoutBrackets = (
  chains: readonly Chain[],
  boxes: readonly StripBox[],
  { height }: StripSizes = STRIP,
): readonly StripBracket[] =>
  chains.flatMap(({ from, to, kind }) => {
    const [first, last] = [boxes[from.spots[0]?.index ?? -1], boxes[to.spots[0]?.index ?? -1]]
    if (!first || !last) return []
    const y = height - 1.5
    const path = `M${first.x + GAP},${y - TICK} V${y} H${last.x + last.w - GAP} V${y - TICK}`
    return [
      {
        path,
        x: first.x,
        w: last.x + last.w - first.x,
        arrives: kind !== 'ii-V without its tonic' && kind !== 'static ii-V',
      },
    ]
  })

/** Where a moment stands on a band of boxes, px; a later chorus stands where the first does. `lengths` in ticks. */
export const xOfTick = (boxes: readonly Box[], lengths: readonly number[], tick: number): number => {
  const form = lengths.reduce((sum, l) => sum + l, 0)
  let left = form > 0 ? tick % form : 0
  for (const [i, length] of lengths.entries()) {
    const box = boxes[i]
    if (box && left < length) return box.x + (box.w * left) / length
    left -= length
  }
  return boxes[0]?.x ?? 0
}

interface Box {
  readonly x: number
  readonly w: number
}

/** A bracket over the bars that are played round, from the first box to the last. */
export const loopPath = (first: Box | undefined, last: Box | undefined): string =>
  first && last ? `M${first.x + 1.5},12 V2.5 H${last.x + last.w - 1.5} V12` : ''
