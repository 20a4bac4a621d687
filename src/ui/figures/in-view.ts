import { type RefObject, useEffect, useState } from 'react'

/** What is drawn of a band, px from its left. */
export interface Range {
  readonly from: number
  readonly to: number
}

/** So much is drawn on either side of what is in sight. */
const BESIDE = 1600
const WHOLE: Range = { from: 0, to: Number.POSITIVE_INFINITY }

/** The part of a band that is scrolled into sight, and a good piece on either side; all of it where it is not windowed. */
export const useInView = (scroller: RefObject<HTMLDivElement | null>, windowed: boolean, at: number): Range => {
  const [range, setRange] = useState<Range>({ from: at - BESIDE, to: at + BESIDE })
  useEffect(() => {
    const box = scroller.current
    if (!box || !windowed) return
    const look = (): void => {
      const [from, to] = [box.scrollLeft, box.scrollLeft + box.clientWidth]
      setRange((before) =>
        from >= before.from + BESIDE / 2 && to <= before.to - BESIDE / 2
          ? before
          : { from: from - BESIDE, to: to + BESIDE },
      )
    }
    look()
    box.addEventListener('scroll', look, { passive: true })
    return () => box.removeEventListener('scroll', look)
  }, [scroller, windowed])
  return windowed ? range : WHOLE
}
