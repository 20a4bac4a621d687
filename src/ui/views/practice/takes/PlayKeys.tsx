import { useRef } from 'react'
import { pitchClass, plainNote, toGlyphs } from '../../../../core/index.ts'
import { playOnScreen } from '../../../state/sound/take-source.ts'
import styles from './Takes.module.css'

const OCTAVES = [0, 1] as const
const TWELVE = Array.from({ length: 12 }, (_, i) => i)

/** Keys to play on in two rows, the black ones over the white, by a finger or a pointer; what they sound is in concert, what they say is written. */
export const PlayKeys = ({ low, writtenUp }: { readonly low: number; readonly writtenUp: number }) => {
  const held = useRef(new Map<number, number>())
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
  }
  return (
    <div className={styles.playKeys} role="group" aria-label="Keys to play on">
      {OCTAVES.map((octave) => (
        <div key={octave} className={styles.octave}>
          {TWELVE.map((at) => {
            const pitch = low + octave * 12 + at
            return (
              <button
                key={pitch}
                type="button"
                tabIndex={-1}
                data-at={at}
                className={styles.key}
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
            )
          })}
        </div>
      ))}
    </div>
  )
}
