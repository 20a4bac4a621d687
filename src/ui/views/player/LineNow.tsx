import { barsAt, degreeOver, heardOver, pitchClass, type Stage, soundingAt, toGlyphs } from '../../../core/index.ts'
import styles from './PlayerView.module.css'

const BARS = 2

/** The notes of the line in the bar that sounds and the next, each by name and degree; the one that sounds stands out. */
export const LineNow = ({ stage, tick }: { readonly stage: Stage; readonly tick: number | null }) => {
  const { tune, line, span } = stage
  const at = Math.max(span.from, tick ?? span.from)
  const bars = barsAt(tune.chart)
  const first = Math.max(
    0,
    bars.findIndex((b) => at < b.to),
  )
  return (
    <ol className={styles.line} aria-label="The line">
      {bars.slice(first, first + BARS).map((bar) => (
        <li key={bar.number}>
          <span className={styles.barNumber}>{bar.number}</span>
          {(line ?? [])
            .filter((n) => n.at >= bar.from && n.at < bar.to)
            .map((n) => {
              const chord = soundingAt(tune.timeline, n.at)?.place?.chord
              const isNow = tick !== null && at >= n.at && at < n.at + n.for
              if (!chord) return null
              return (
                <span key={n.at} className={`${styles.lineNote} ${isNow ? styles.nowNote : ''}`}>
                  <b>{toGlyphs(heardOver(chord, pitchClass(n.pitch)).name)}</b>
                  {toGlyphs(degreeOver(chord, pitchClass(n.pitch)))}
                </span>
              )
            })}
        </li>
      ))}
    </ol>
  )
}
