import { useMemo } from 'react'
import { barsAt, type Stage } from '../../../core/index.ts'
import styles from './PlayerView.module.css'

/** OUT or IN in words, height and shape, with the bars left of it. */
export const CueNow = ({ stage, tick }: { readonly stage: Stage; readonly tick: number | null }) => {
  const all = useMemo(() => barsAt(stage.tune.chart), [stage])
  const at = Math.max(stage.span.from, tick ?? stage.span.from)
  const cue = stage.cues.find((c) => at >= c.from && at < c.to)
  if (!cue) return <div className={styles.cue} />
  const bars = all.filter((b) => b.to > at && b.from < cue.to).length
  return (
    <div className={`${styles.cue} ${cue.where === 'out' ? styles.out : styles.in}`} role="status">
      <strong>{cue.where === 'out' ? 'OUT' : 'IN'}</strong>
      <span>
        <b>{bars}</b> {bars === 1 ? 'bar' : 'bars'} left
      </span>
    </div>
  )
}
