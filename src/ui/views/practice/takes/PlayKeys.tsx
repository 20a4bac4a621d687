import { useRef } from 'react'
import { pitchClass, plainNote, toGlyphs } from '../../../../core/index.ts'
import { playOnScreen } from '../../../state/sound/take-source.ts'
import styles from './Takes.module.css'

const BLACK = new Set([1, 3, 6, 8, 10])
const OCTAVES = 2

/** Keys to play on, by a finger or a pointer; what they sound is in concert, what they say is written. */
export const PlayKeys = ({
  low,
  writtenUp,
  onGlide,
}: {
  readonly low: number
  readonly writtenUp: number
  readonly onGlide?: () => void
}) => {
  const held = useRef(new Map<number, number>())
  const keys = Array.from({ length: OCTAVES * 12 + 1 }, (_, i) => low + i)
  const off = (pointer: number): void => {
    const pitch = held.current.get(pointer)
    if (pitch === undefined) return
    held.current.delete(pointer)
    playOnScreen('off', pitch - writtenUp)
  }
  const on = (pointer: number, pitch: number): void => {
    if (held.current.get(pointer) === pitch) return
    off(pointer)
    held.current.set(pointer, pitch)
    playOnScreen('on', pitch - writtenUp)
    onGlide?.()
  }
  return (
    <div className={styles.playKeys} role="group" aria-label="Keys to play on">
      {keys.map((pitch) => (
        <button
          key={pitch}
          type="button"
          tabIndex={-1}
          className={BLACK.has(pitch % 12) ? styles.black : styles.white}
          aria-label={`${toGlyphs(plainNote(pitchClass(pitch)).name)} ${Math.floor(pitch / 12) - 1}`}
          onPointerDown={(e) => {
            e.currentTarget.releasePointerCapture(e.pointerId)
            on(e.pointerId, pitch)
          }}
          onPointerEnter={(e) => e.buttons > 0 && on(e.pointerId, pitch)}
          onPointerUp={(e) => off(e.pointerId)}
          onPointerLeave={(e) => off(e.pointerId)}
          onPointerCancel={(e) => off(e.pointerId)}
        />
      ))}
    </div>
  )
}
