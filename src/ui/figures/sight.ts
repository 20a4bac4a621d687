import { type RefObject, useEffect } from 'react'

/** What must be in sight of a band that scrolls sideways, px from its left. */
interface Sight {
  readonly x: number
  readonly w: number
  /** What covers the left of the band. */
  readonly covered?: number
  /** Brought to the middle at every move, instead of only when it is out of sight. */
  readonly always?: boolean
}

/** Scrolls a band so that what one is at stays in sight; at once where motion is not wanted. */
export const useInSight = (
  scroller: RefObject<HTMLDivElement | null>,
  { x, w, covered = 0, always = false }: Sight,
): void =>
  useEffect(() => {
    const box = scroller.current
    if (!box) return
    let calm = matchMedia('(prefers-reduced-motion: reduce)').matches
    const bring = (): void => {
      const seen = x >= box.scrollLeft + covered && x + w <= box.scrollLeft + box.clientWidth
      if (seen && !always) return
      box.scrollTo({ left: x + w / 2 - box.clientWidth / 2, behavior: calm ? 'instant' : 'smooth' })
    }
    // It is told after a layout, so asking where the band is makes none: first at once, then when a window is turned or
    // resized.
    let width: number | null = null
    const observer = new ResizeObserver(() => {
      if (box.clientWidth === width) return
      if (width !== null) calm = true
      width = box.clientWidth
      bring()
    })
    observer.observe(box)
    return () => observer.disconnect()
  }, [scroller, x, w, covered, always])
