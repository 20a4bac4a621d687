import { toGlyphs } from '../../../core/index.ts'
import { howMany, pitchName } from '../../figures/words.ts'
import type { LookedInto } from '../../state/line/lines.ts'
import styles from './VoiceChoice.module.css'

type Voice = LookedInto['voices'][number]

const SIZE = { width: 120, height: 32, edge: 3 } as const

/** The course of a voice, between the lowest and the highest note of all of them. */
const courseOf = ({ course }: Voice, low: number, high: number): string => {
  const { width, height, edge } = SIZE
  const step = width / Math.max(1, course.length)
  return course
    .map((pitch, i) => {
      const y = height - edge - ((pitch - low) / Math.max(1, high - low)) * (height - 2 * edge)
      return `M${(i * step).toFixed(1)},${y.toFixed(1)} h${Math.max(1, step - 1).toFixed(1)}`
    })
    .join(' ')
}

/** The voices of a file, each with its range and its course: the arrow keys go from one to the next. */
export const VoiceChoice = ({
  voices,
  chosen,
  onPick,
}: {
  readonly voices: readonly Voice[]
  readonly chosen: number
  readonly onPick: (voice: number) => void
}) => {
  const [low, high] = [Math.min(...voices.map((v) => v.low)), Math.max(...voices.map((v) => v.high))]
  return (
    <fieldset className={styles.voices}>
      <legend>Which voice</legend>
      {voices.map((v, i) => (
        <label key={`${v.track} ${v.channel}`} className={i === chosen ? styles.chosen : styles.voice}>
          <input type="radio" name="voice" checked={i === chosen} onChange={() => onPick(i)} />
          <span>
            <b>{v.name || `track ${v.track + 1}, channel ${v.channel}`}</b>
            <small>
              {howMany(v.notes, 'note')}, {toGlyphs(pitchName(v.low))} to {toGlyphs(pitchName(v.high))}
            </small>
          </span>
          <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} aria-hidden="true">
            <path d={courseOf(v, low, high)} />
          </svg>
        </label>
      ))}
    </fieldset>
  )
}
