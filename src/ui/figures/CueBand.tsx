import { type Cue, toGlyphs } from '../../core/index.ts'
import styles from './CueBand.module.css'
import { hueClass } from './hue.ts'

interface Props {
  readonly cues: readonly Cue[]
  readonly from: number
  readonly to: number
  /** Where the music is; null at rest. */
  readonly tick: number | null
}

const LEAST = 14

/** One round as steps above the home line: what is out stands high, what is in lies on it; the music walks along. */
export const CueBand = ({ cues, from, to, tick }: Props) => {
  const x = (at: number): number => (100 * (at - from)) / Math.max(1, to - from)
  return (
    <svg
      className={styles.band}
      viewBox="0 0 100 100"
      preserveAspectRatio="none"
      role="img"
      aria-label={cues.map((c) => `${c.where}, ${toGlyphs(c.name)}`).join('; ')}
    >
      {cues.map((c) => {
        const height = c.where === 'out' ? Math.max(LEAST, c.fade) * 0.86 : LEAST * 0.5
        return (
          <rect
            key={c.from}
            className={`${styles.step} ${hueClass(c.fade)}`}
            x={x(c.from) + 0.15}
            width={Math.max(0.2, x(c.to) - x(c.from) - 0.3)}
            y={92 - height}
            height={height}
          />
        )
      })}
      <line className={styles.home} x1="0" x2="100" y1="92" y2="92" />
      {tick !== null && tick >= from && <line className={styles.now} x1={x(tick)} x2={x(tick)} y1="0" y2="100" />}
    </svg>
  )
}
