import { type MouseEvent, type RefObject, useEffect, useState } from 'react'
import type { HeardNote } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { furthestOut } from './in-view.ts'
import styles from './LineBand.module.css'
import type { LineLayout } from './line-band-layout.ts'

interface Props {
  readonly layout: LineLayout
  readonly notes: readonly HeardNote[]
  readonly scroller: RefObject<HTMLDivElement | null>
}

const HIGH = 16
const LOWEST = 3

/** All of a long line, thin: how far out each note is, and which part is in sight. A tap goes there. */
export const LineOverview = ({ layout, notes, scroller }: Props) => {
  const [seen, setSeen] = useState({ from: 0, width: Number.POSITIVE_INFINITY })
  useEffect(() => {
    const box = scroller.current
    if (!box) return
    const look = () => setSeen({ from: box.scrollLeft, width: box.clientWidth })
    look()
    const watch = new ResizeObserver(look)
    watch.observe(box)
    box.addEventListener('scroll', look, { passive: true })
    return () => {
      watch.disconnect()
      box.removeEventListener('scroll', look)
    }
  }, [scroller])
  if (layout.width < seen.width * 1.5) return null
  const go = (e: MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect()
    const at = ((e.clientX - box.left) / box.width) * layout.width
    scroller.current?.scrollTo({ left: at - seen.width / 2 })
  }
  return (
    <svg
      className={styles.overview}
      viewBox={`0 0 ${layout.width} ${HIGH}`}
      preserveAspectRatio="none"
      aria-hidden="true"
      onClick={go}
    >
      <rect className={styles.seen} x={seen.from} y={0} width={seen.width} height={HIGH} />
      {furthestOut(notes.map((n) => n.fade)).map((i) => {
        const [n, box] = [notes[i] as HeardNote, layout.notes[i]]
        const high = LOWEST + (n.fade / 100) * (HIGH - LOWEST)
        return (
          box && (
            <rect
              key={n.at}
              className={`${styles.thin} ${hueClass(n.fade)}`}
              x={box.x}
              width={box.w}
              y={HIGH - high}
              height={high}
            />
          )
        )
      })}
    </svg>
  )
}
