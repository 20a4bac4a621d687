import { useEffect, useRef } from 'react'
import { beatTicks } from '../../../core/index.ts'
import { musicTick } from '../../state/sound/playing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './StandView.module.css'

/** Beats that are left of the chord in view at a tick of the music; null while another chord sounds. */
export const beatsLeft = ({ chart, spots, current }: OpenChart, tick: number): number | null => {
  if (!chart || !current) return null
  const form = spots.reduce((sum, s) => sum + s.spot.length, 0)
  const from = spots.slice(0, current.index).reduce((sum, s) => sum + s.spot.length, 0)
  const within = form > 0 ? (tick % form) - from : -1
  if (within < 0 || within >= current.spot.length) return null
  return Math.ceil((current.spot.length - within) / beatTicks(current.spot.metre))
}

/** The beats left of the chord, counted down while the band plays. It draws itself, so that the stand need not. */
export const BeatsLeft = ({ openChart }: { readonly openChart: OpenChart }) => {
  const text = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    let frame = 0
    const draw = () => {
      const at = musicTick()
      const left = at === null ? null : beatsLeft(openChart, at)
      if (text.current) text.current.textContent = left === null ? '' : String(left)
      frame = requestAnimationFrame(draw)
    }
    draw()
    return () => cancelAnimationFrame(frame)
  }, [openChart])
  return <span ref={text} className={styles.left} aria-hidden="true" />
}
