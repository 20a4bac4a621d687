import { type RefObject, useEffect, useState } from 'react'

/** What is drawn of a band, px from its left. */
interface Range {
  readonly from: number
  readonly to: number
}

/** So much is drawn on either side of what is in sight. */
const BESIDE = 1600

/**
 * Whether a piece of a band is to be drawn: it is scrolled into sight or stands a good piece on either side; all of it
 * is where the band is not windowed. `at` is what one is at.
 */
export const useInView = (
  scroller: RefObject<HTMLDivElement | null>,
  windowed: boolean,
  at: number,
): ((x: number, w: number) => boolean) => {
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
  return (x, w) => !windowed || (x + w >= range.from && x <= range.to)
}

/** An overview of more is thinned to so many. */
const MOST = 600

/** The places an overview shows: all, or of those that stand together the one furthest out. */
export const furthestOut = (fades: readonly number[]): readonly number[] => {
  const each = Math.max(1, Math.ceil(fades.length / MOST))
  const fade = (i: number): number => fades[i] ?? -1
  return Array.from({ length: Math.ceil(fades.length / each) }, (_, g) => {
    let most = g * each
    for (let i = most + 1; i < (g + 1) * each; i++) if (fade(i) > fade(most)) most = i
    return most
  })
}
