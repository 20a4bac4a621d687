import { useEffect, useRef } from 'react'
import styles from './Playhead.module.css'

interface Props {
  /** The tick that sounds now; null while nothing does. */
  readonly now: () => number | null
  readonly xAt: (tick: number) => number
  readonly top: number
  readonly bottom: number
}

/** Where the music is: a line that moves over a figure in time. It draws itself, so that the figure need not. */
export const Playhead = ({ now, xAt, top, bottom }: Props) => {
  const line = useRef<SVGLineElement>(null)
  const place = useRef(xAt)
  place.current = xAt
  useEffect(() => {
    let frame = 0
    const draw = () => {
      const at = now()
      if (line.current) {
        line.current.style.display = at === null ? 'none' : ''
        if (at !== null) line.current.setAttribute('transform', `translate(${place.current(at)},0)`)
      }
      frame = requestAnimationFrame(draw)
    }
    draw()
    return () => cancelAnimationFrame(frame)
  }, [now])
  return <line ref={line} className={styles.head} x1={0} x2={0} y1={top} y2={bottom} aria-hidden="true" />
}
