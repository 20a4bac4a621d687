import { type Figure, offsetsIn, startTicks, VALUES, type ValueName } from '../../core/index.ts'
import styles from './MakePictures.module.css'

const [W, H] = [96, 40] as const
const SCALE = 7

interface Dots {
  readonly heights: readonly number[]
  readonly strong?: readonly boolean[]
}

/** Tabs on a line, each as high as its place, joined by a thread. */
const Contour = ({ heights, strong = [] }: Dots) => {
  const [low, high] = [Math.min(...heights), Math.max(...heights)]
  const step = (W - 12) / Math.max(1, heights.length - 1)
  const at = (h: number, i: number) => ({
    x: heights.length === 1 ? W / 2 : 6 + i * step,
    y: H - 7 - ((h - low) / Math.max(1, high - low)) * (H - 14),
  })
  const points = heights.map(at)
  return (
    <svg className={styles.picture} viewBox={`0 0 ${W} ${H}`} aria-hidden="true">
      <line className={styles.home} x1={0} x2={W} y1={H - 1} y2={H - 1} />
      <polyline className={styles.thread} points={points.map(({ x, y }) => `${x},${y}`).join(' ')} />
      {points.map(({ x, y }, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: tabs of a drawing have no other name than their place
          key={i}
          className={strong[i] === false ? styles.hollow : styles.tab}
          x={x - 3.5}
          y={y - 4}
          width={7}
          height={8}
        />
      ))}
    </svg>
  )
}

/** A figure twice over: the order of its notes, and where the next group begins. */
export const FigurePicture = ({ figure }: { readonly figure: Figure }) => {
  const offsets = offsetsIn(figure, SCALE)
  const next = offsets.map((o) => o + figure.step)
  return <Contour heights={[...offsets, ...next]} strong={[...offsets.map(() => true), ...next.map(() => false)]} />
}

const PATHS: Readonly<Record<string, readonly number[]>> = {
  up: [0, 1, 2, 3, 4, 5],
  down: [5, 4, 3, 2, 1, 0],
  wave: [0, 2, 4, 2, 0, 2, 4],
  nearest: [2, 3, 2, 3, 4, 3],
  free: [1, 3, 2, 5, 4, 0],
}
export const PathPicture = ({ path }: { readonly path: string }) => <Contour heights={PATHS[path] ?? [0]} />

const BEATS = 2
const BEAT = 960

/** Notes of a value on a ruler of two beats. */
export const RhythmPicture = ({ value, start }: { readonly value: ValueName; readonly start: number }) => {
  const length = VALUES[value]
  const x = (ticks: number): number => 4 + (ticks / (BEATS * BEAT)) * (W - 8)
  const first = ((startTicks({ value, start, rest: null }, BEAT) % BEAT) + BEAT) % BEAT
  const notes = Array.from({ length: Math.ceil((BEATS * BEAT - first) / length) }, (_, i) => first + i * length)
  return (
    <svg className={styles.picture} viewBox={`0 0 ${W} ${H}`} aria-hidden="true">
      {[0, 1, 2].map((b) => (
        <line key={b} className={styles.beat} x1={x(b * BEAT)} x2={x(b * BEAT)} y1={6} y2={H - 2} />
      ))}
      <line className={styles.home} x1={0} x2={W} y1={H - 6} y2={H - 6} />
      {notes.map((at) => (
        <rect
          key={at}
          className={styles.tab}
          x={x(at) + 1}
          y={14}
          width={Math.max(3, (length / (BEATS * BEAT)) * (W - 8) - 3)}
          height={12}
        />
      ))}
    </svg>
  )
}

/** What leads to a target, in half steps from it, the target last. */
export const ApproachPicture = ({ led }: { readonly led: readonly number[] }) => (
  <Contour heights={[...led, 0]} strong={[...led.map(() => false), true]} />
)
