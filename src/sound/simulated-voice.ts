import { Gain, getContext, getDestination, Synth } from 'tone'
import { hertz } from './voice-pool.ts'

const LEVEL = 0.22
const APART_S = 0.005

const makeVoice = () => {
  const context = getContext().rawContext as AudioContext
  const out = new Gain(LEVEL).connect(getDestination())
  const kept = context.createMediaStreamDestination()
  out.connect(kept)
  const synth = new Synth({
    oscillator: { type: 'triangle8' },
    envelope: { attack: 0.015, decay: 0.15, sustain: 0.75, release: 0.08 },
  }).connect(out)
  let last = 0
  return {
    stream: kept.stream,
    /** `at` in seconds of the context's clock. */
    strike: (pitch: number, at: number, seconds: number, loudness: number): void => {
      // The clocks drift against each other by a few ms: a note never comes before the one before it.
      last = Math.max(at, last + APART_S)
      synth.triggerAttackRelease(hertz(pitch), seconds, last, loudness)
    },
  }
}

let made: ReturnType<typeof makeVoice> | undefined
/** The simulated player's voice, made once: heard, and brought as a stream that can be kept. */
export const simulatedVoice = () => {
  made ??= makeVoice()
  return made
}
