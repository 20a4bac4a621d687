import { type RefObject, useLayoutEffect, useRef, useState } from 'react'

export interface Size {
  readonly w: number
  readonly h: number
}

/** A box's inner size in px as it changes; null until it is on a screen. */
export const useSize = <E extends Element>(): readonly [RefObject<E | null>, Size | null] => {
  const ref = useRef<E>(null)
  const [size, setSize] = useState<Size | null>(null)
  useLayoutEffect(() => {
    const box = ref.current
    if (!box) return
    const measure = () => {
      const { clientWidth: w, clientHeight: h } = box
      setSize((before) => (before?.w === w && before.h === h ? before : { w, h }))
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(box)
    return () => observer.disconnect()
  }, [])
  return [ref, size]
}
