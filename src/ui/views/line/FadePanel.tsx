import { useEffect, useMemo, useRef } from 'react'
import { barsAt, momentOf } from '../../../core/index.ts'
import { say } from '../../state/page/notices.ts'
import { useOver } from '../overlay/use-over.ts'
import type { SideProps } from './LineSides.tsx'
import styles from './LineView.module.css'

interface Point {
  readonly x: number
  readonly y: number
}

/** The line of fade note by note, and under it what the attached route planned. */
export const FadePanel = ({ lineAnalysis, row }: SideProps) => {
  const canvas = useRef<HTMLCanvasElement>(null)
  const { rows: routes } = useOver('routes', row.chartId)
  const { audit, chart } = lineAnalysis
  const route = routes.find((r) => r.id === row.routeId) ?? null
  const played = useMemo(() => {
    const { beat } = audit.timeline
    const all = audit.notes.map((n): Point => ({ x: n.at / beat, y: n.fade }))
    const last = audit.notes.at(-1)
    return last ? [...all, { x: (last.at + last.for) / beat, y: last.fade }] : all
  }, [audit])
  const barLines = useMemo(() => {
    const { beat, length } = audit.timeline
    const [from, to] = [played[0]?.x ?? 0, played.at(-1)?.x ?? 0]
    const rounds = length > 0 ? Math.ceil(((to + 1) * beat) / length) : 0
    const all = Array.from({ length: rounds }, (_, k) => k * length).flatMap((start) =>
      barsAt(chart).map((b) => ({ number: b.number, at: (start + b.from) / beat, until: (start + b.to) / beat })),
    )
    const seen = all.filter((b) => b.until > from && b.at <= to)
    const last = seen.at(-1)
    return last ? [...seen, { number: last.number + 1, at: last.until, until: last.until }] : []
  }, [audit, chart, played])
  const planned = useMemo(() => {
    const bars = barsAt(chart)
    const [from, to] = [played[0]?.x ?? 0, played.at(-1)?.x ?? 0]
    const { beat, length } = audit.timeline
    const chorus = Math.floor((from * beat) / Math.max(1, length)) * (length / beat)
    const all = (route?.steps ?? []).flatMap((s): readonly Point[] => {
      const bar = bars.find((b) => b.number === s.bar)
      return bar && s.fade !== undefined ? [{ x: chorus + momentOf(bar, s.beat ?? 1) / beat, y: s.fade }] : []
    })
    const before = all.filter((p) => p.x <= from).at(-1)
    const within = all.filter((p) => p.x > from && p.x <= to)
    const inView = [...(before ? [{ ...before, x: from }] : []), ...within]
    const last = inView.at(-1)
    return last ? [...inView, { ...last, x: to }] : []
  }, [route, chart, audit, played])
  useEffect(() => {
    let wanted = true
    let stop = () => {}
    void import('../overlay/fade-chart.ts').then(
      ({ drawFade }) => {
        if (wanted && canvas.current) stop = drawFade(canvas.current, played, planned, barLines)
      },
      () => say('The picture could not be loaded. Its words are under it.'),
    )
    return () => {
      wanted = false
      stop()
    }
  }, [played, planned, barLines])
  const peak = Math.max(0, ...played.map((p) => p.y))
  const words = `Fade of ${audit.notes.length} notes, ${peak} at most${route ? `, over what ${route.name} planned` : ''}.`
  return (
    <div className={styles.fadePanel}>
      <div className={styles.fadeChart}>
        <canvas ref={canvas} role="img" aria-label={words} />
      </div>
      <p className={styles.soft}>{route ? `Drawn through: the line. Broken: ${route.name}.` : words}</p>
    </div>
  )
}
