import { PitchDetector } from 'pitchy'
import type { Frame } from './tracking.ts'

/** Samples of one look, and from one look to the next. */
const WINDOW = 2048
const HOP = 256
/** Below this note a look must be longer to hold two of its waves. */
const LOW = 45

/** How many samples are looked at for an instrument that goes down to a MIDI number. */
export const windowFor = (lowest: number): number => (lowest < LOW ? 2 * WINDOW : WINDOW)

/** Looks at sound as it comes in pieces: the pitch by the McLeod method, the loudness of its last quarter. */
export const soundLooker = (rate: number, window: number, onFrame: (frame: Frame) => void) => {
  const detector = PitchDetector.forFloat32Array(window)
  detector.minVolumeDecibels = -60
  const held = new Float32Array(window)
  const look = new Float32Array(window)
  const lag = (window / 2 / rate) * 1000
  let [filled, fresh, taken] = [0, 0, 0]
  const loudness = (): number => {
    const part = look.subarray(window - window / 4)
    return Math.sqrt(part.reduce((sum, x) => sum + x * x, 0) / part.length)
  }
  const told = (): void => {
    look.set(held.subarray(filled), 0)
    look.set(held.subarray(0, filled), window - filled)
    const [hz, clarity] = detector.findPitch(look, rate)
    onFrame({ at: (taken / rate) * 1000, lag, hz, clarity, level: loudness() })
  }
  return (piece: Float32Array): void => {
    for (const sample of piece) {
      held[filled] = sample
      filled = (filled + 1) % window
      taken++
      fresh++
      if (fresh >= HOP && taken >= window) {
        fresh = 0
        told()
      }
    }
  }
}
