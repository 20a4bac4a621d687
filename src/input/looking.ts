import { PitchDetector } from 'pitchy'
import type { Frame } from './tracking.ts'

/** Samples of one look, and from one look to the next. */
const WINDOW = 2048
const HOP = 256
/** Below this note a look must be longer to hold two of its waves. */
const LOW = 45

/** How many samples are looked at for an instrument that goes down to a MIDI number. */
export const windowFor = (lowest: number): number => (lowest < LOW ? 2 * WINDOW : WINDOW)

/** Silence without any noise, for so many samples and ms at most, that cuts into sound was lost on the way, not played. */
const NO_NOISE = 1e-5
const SHORTEST = 64
const LOST_MS = 120
/** Samples before a cut that tell whether sound was cut or had faded. */
const BEFORE = 256

/**
 * Looks at sound as it comes in pieces: the pitch by the McLeod method, the loudness of its last quarter. What a busy
 * machine lost is left out, and what was heard before it is told once more after it.
 */
export const soundLooker = (rate: number, window: number, onFrame: (frame: Frame) => void) => {
  const detector = PitchDetector.forFloat32Array(window)
  detector.minVolumeDecibels = -60
  const held = new Float32Array(window)
  const look = new Float32Array(window)
  const lag = (window / 2 / rate) * 1000
  const longest = (LOST_MS / 1000) * rate
  let [filled, fresh, taken, silent] = [0, 0, 0, 0]
  let before: Frame | null = null
  const loudness = (samples: Float32Array): number =>
    Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length)
  const inOrder = (): void => {
    look.set(held.subarray(filled), 0)
    look.set(held.subarray(0, filled), window - filled)
  }
  const told = (): void => {
    inOrder()
    const [hz, clarity] = detector.findPitch(look, rate)
    before = { at: (taken / rate) * 1000, lag, hz, clarity, level: loudness(look.subarray(window - window / 4)) }
    onFrame(before)
  }
  const take = (sample: number): void => {
    held[filled] = sample
    filled = (filled + 1) % window
    taken++
    fresh++
    if (fresh >= HOP && taken >= window) {
      fresh = 0
      told()
    }
  }
  const wasCut = (): boolean => {
    inOrder()
    return before !== null && loudness(look.subarray(window - BEFORE)) > before.level / 2
  }
  const afterSilence = (): void => {
    if (before && silent >= SHORTEST && silent <= longest && wasCut()) {
      taken += silent
      onFrame({ ...before, at: (taken / rate) * 1000 })
    } else for (let i = 0; i < silent; i++) take(0)
    silent = 0
  }
  return (piece: Float32Array): void => {
    for (const sample of piece) {
      if (Math.abs(sample) < NO_NOISE) {
        silent++
        if (silent > longest) afterSilence()
        continue
      }
      if (silent > 0) afterSilence()
      take(sample)
    }
  }
}
