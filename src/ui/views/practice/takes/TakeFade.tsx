import { useEffect, useMemo, useRef } from 'react'
import type { TakeRead } from '../../../../workers/start.ts'
import { say } from '../../../state/page/notices.ts'
import styles from './Takes.module.css'

/** How far out it was, note by note, against what was wished. */
export const TakeFade = ({ read: { reading } }: { readonly read: TakeRead }) => {
  const canvas = useRef<HTMLCanvasElement>(null)
  const drawn = useMemo(() => {
    const { notes, timeline } = reading.audit
    const { beat, length, soundings } = timeline
    const last = notes.at(-1)
    const played = [
      ...notes.map((n) => ({ x: n.at / beat, y: n.fade })),
      ...(last ? [{ x: (last.at + last.for) / beat, y: last.fade }] : []),
    ]
    const steps = reading.steps.flatMap((s) => [
      { x: s.from / beat, y: s.wished },
      { x: s.to / beat, y: s.wished },
    ])
    const begins = soundings.filter((s, i) => s.spot.spot.bar !== soundings[i - 1]?.spot.spot.bar)
    const rounds = length > 0 ? Math.ceil(((played.at(-1)?.x ?? 0) * beat + 1) / length) : 0
    const lines = Array.from({ length: rounds }, (_, k) => k * length).flatMap((start) =>
      begins.map((s) => ({ number: s.spot.spot.bar, at: (start + s.from) / beat })),
    )
    return { played, wished: steps, lines }
  }, [reading])
  useEffect(() => {
    let wanted = true
    let stop = () => {}
    void import('../../overlay/fade-chart.ts').then(
      ({ drawFade }) => {
        if (wanted && canvas.current) stop = drawFade(canvas.current, drawn.played, drawn.wished, drawn.lines)
      },
      () => say('The picture could not be loaded. Its words are under it.'),
    )
    return () => {
      wanted = false
      stop()
    }
  }, [drawn])
  const peak = Math.max(0, ...drawn.played.map((p) => p.y))
  const words = `How far out: ${peak} at most${drawn.wished.length > 0 ? ', over what was wished' : ''}.`
  return (
    <figure className={styles.fade}>
      <div className={styles.canvas}>
        <canvas ref={canvas} role="img" aria-label={words} />
      </div>
      <figcaption>
        {drawn.wished.length > 0 ? 'Drawn through: what you played. Broken: what was wished.' : words}
      </figcaption>
    </figure>
  )
}
