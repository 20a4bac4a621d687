import { readFileSync } from 'node:fs'
import { PitchDetector } from 'pitchy'

/** Samples of a sound file, one channel, -1..1. */
export interface Sound {
  readonly rate: number
  readonly samples: Float32Array
}

const HEAD = 44

/** The left channel of a WAV file of 16 bits, stereo. */
export const readWav = (path: string): Sound => {
  const bytes = readFileSync(path)
  const rate = bytes.readUInt32LE(24)
  const frames = Math.floor((bytes.length - HEAD) / 4)
  return { rate, samples: Float32Array.from({ length: frames }, (_, i) => bytes.readInt16LE(HEAD + i * 4) / 32768) }
}

/** Loudness is taken over 4 ms, every millisecond, and compared with the 25 ms before. */
const HOP_S = 0.001
const WINDOW = 4
const BEFORE = 25
const RISE = 1.8
const APART_S = 0.06

/** When something begins to sound, in seconds: it is at least `loud`, and well above all that sounded just before. */
export const onsetsIn = ({ rate, samples }: Sound, loud: number): readonly number[] => {
  const hop = Math.round(rate * HOP_S)
  const powers = Array.from({ length: Math.floor(samples.length / hop) }, (_, k) =>
    samples.subarray(k * hop, (k + 1) * hop).reduce((sum, x) => sum + x * x, 0),
  )
  const loudness = powers.map((_, k) =>
    Math.sqrt(powers.slice(Math.max(0, k - WINDOW + 1), k + 1).reduce((sum, p) => sum + p, 0) / (WINDOW * hop)),
  )
  const onsets: number[] = []
  for (const [k, now] of loudness.entries()) {
    const before = Math.max(0, ...loudness.slice(Math.max(0, k - WINDOW - BEFORE), Math.max(0, k - WINDOW)))
    const at = (k * hop) / rate
    if (now >= loud && now >= RISE * before && at - (onsets.at(-1) ?? -1) > APART_S) onsets.push(at)
  }
  return onsets
}

const LOOKED_AT = 4096

/** The MIDI pitch that sounds at a moment, to the nearest semitone; null where nothing clear does. */
export const pitchAt = ({ rate, samples }: Sound, seconds: number): number | null => {
  const from = Math.round(seconds * rate)
  const detector = PitchDetector.forFloat32Array(LOOKED_AT)
  const [hertz, clarity] = detector.findPitch(samples.slice(from, from + LOOKED_AT), rate)
  return clarity > 0.9 ? Math.round(69 + 12 * Math.log2(hertz / 440)) : null
}
