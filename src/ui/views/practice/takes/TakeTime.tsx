import { msPerTick } from '../../../../core/index.ts'
import type { TakeRead } from '../../../../workers/start.ts'
import styles from './Takes.module.css'

const [WIDTH, HEIGHT, MOST_MS] = [1000, 90, 80] as const

/** Each note against the beat: above the line early, below it late; as a picture and in words. */
export const TakeTime = ({ read: { reading }, tempo }: { readonly read: TakeRead; readonly tempo: number }) => {
  const { notes } = reading.timing
  const ms = msPerTick(reading.audit.timeline, tempo)
  const [first, last] = [notes[0]?.at ?? 0, notes.at(-1)?.at ?? 1]
  const x = (at: number): number => ((at - first) / Math.max(1, last - first)) * (WIDTH - 8) + 4
  const y = (off: number): number =>
    HEIGHT / 2 + (Math.max(-MOST_MS, Math.min(MOST_MS, off * ms)) / MOST_MS) * (HEIGHT / 2 - 4)
  const { mean, spread, swing } = reading.time
  const where = Math.abs(mean) < 3 ? 'on the beat' : `${Math.round(Math.abs(mean))} ms ${mean < 0 ? 'early' : 'late'}`
  const swung = swing === null ? 'no pairs of eighths' : swing < 54 ? 'even eighths' : `eighths swung at ${swing} %`
  return (
    <figure className={styles.time}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden="true">
        <path className={styles.beatLine} d={`M0,${HEIGHT / 2} H${WIDTH}`} />
        {notes.map((n) => (
          <path key={n.at} className={styles.miss} d={`M${x(n.at)},${HEIGHT / 2} V${y(n.off)}`} />
        ))}
      </svg>
      <figcaption>
        {where}, within {Math.round(spread)} ms; {swung}. Above the line is early, below it late, 80 ms at most.
      </figcaption>
    </figure>
  )
}
