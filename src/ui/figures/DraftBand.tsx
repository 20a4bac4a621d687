import styles from './DraftBand.module.css'
import { hueClass } from './hue.ts'

const HEIGHT = 34
const BAR = 5
const WIDTH = 420
/** Of a long line its beginning: more would be no line at a glance. */
const MOST = 48

interface Props {
  readonly notes: readonly { readonly at: number; readonly for: number; readonly pitch: number }[]
  readonly fades: readonly number[]
}

/** A line at a glance: its contour, each note as long as it lasts and in the hue of how far out it is. */
export const DraftBand = ({ notes: all, fades }: Props) => {
  const notes = all.slice(0, MOST)
  const [first, last] = [notes[0], notes.at(-1)]
  if (!first || !last) return null
  const pitches = notes.map((n) => n.pitch)
  const [low, high] = [Math.min(...pitches), Math.max(...pitches)]
  const length = Math.max(1, last.at + last.for - first.at)
  const y = (pitch: number): number => (HEIGHT - BAR - 2) * (1 - (pitch - low) / Math.max(1, high - low)) + 1
  return (
    <svg className={styles.band} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden="true">
      {notes.map((n, i) => (
        <rect
          key={n.at}
          className={`${styles.note} ${hueClass(fades[i] ?? 0)}`}
          x={((n.at - first.at) / length) * WIDTH}
          y={y(n.pitch)}
          width={Math.max(2, (n.for / length) * WIDTH - 1.5)}
          height={BAR}
        />
      ))}
    </svg>
  )
}
