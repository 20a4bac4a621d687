import { type PointerEvent, useRef } from 'react'
import { playOnScreen } from '../../../state/sound/take-source.ts'

/** What a finger or a pointer does to what sounds: a note begins as it comes down or glides on, and ends as it leaves. */
export const usePressed = () => {
  const held = useRef(new Map<number, number>())
  const off = ({ pointerId }: PointerEvent): void => {
    const pitch = held.current.get(pointerId)
    if (pitch === undefined) return
    held.current.delete(pointerId)
    playOnScreen('off', pitch)
  }
  const on = (e: PointerEvent, pitch: number): void => {
    if (held.current.get(e.pointerId) === pitch) return
    off(e)
    held.current.set(e.pointerId, pitch)
    playOnScreen('on', pitch)
  }
  /** For what sounds a pitch, in concert. */
  return (pitch: number) => ({
    onPointerDown: (e: PointerEvent<HTMLElement>) => {
      e.currentTarget.releasePointerCapture(e.pointerId)
      on(e, pitch)
    },
    onPointerEnter: (e: PointerEvent<HTMLElement>) => e.buttons > 0 && on(e, pitch),
    onPointerUp: off,
    onPointerLeave: off,
    onPointerCancel: off,
  })
}
