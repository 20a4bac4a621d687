import { type RefObject, useEffect, useRef, useState } from 'react'

export interface Size {
  readonly w: number
  readonly h: number
}

/** A box's inner size in px as it changes; null until it is on a screen. */
export const useSize = <E extends Element>(): readonly [RefObject<E | null>, Size | null] => {
  const ref = useRef<E>(null)
  const [size, setSize] = useState<Size | null>(null)
  useEffect(() => {
    const box = ref.current
    if (!box) return
    const observer = new ResizeObserver(([entry]) => {
      if (!entry) return
      const { width, height } = entry.contentRect
      setSize((before) => (before?.w === width && before.h === height ? before : { w: width, h: height }))
    })
    observer.observe(box)
    return () => observer.disconnect()
  }, [])
  return [ref, size]
}
