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
    // With the next frame: asking where a band is makes the browser lay out the page, which it does then anyway.
    const frame = requestAnimationFrame(bring)
    // A window that is turned or resized keeps it in sight, at once.
    let width: number | null = null
    const observer = new ResizeObserver(() => {
      const isTurned = width !== null && box.clientWidth !== width
      width = box.clientWidth
      if (!isTurned) return
      calm = true
      bring()
    })
    observer.observe(box)
    return () => {
      cancelAnimationFrame(frame)
      observer.disconnect()
    }
  }, [scroller, x, w, covered, always])
