import { Frequency, Gain, getContext, getDestination, Synth } from 'tone'

const LEVEL = 0.22

/** The simulated player's voice: heard, and brought as a stream that can be kept. */
export const simulatedVoice = () => {
  const context = getContext().rawContext as AudioContext
  const out = new Gain(LEVEL).connect(getDestination())
  const kept = context.createMediaStreamDestination()
  out.connect(kept)
  const synth = new Synth({
    oscillator: { type: 'triangle8' },
    envelope: { attack: 0.015, decay: 0.15, sustain: 0.75, release: 0.08 },
  }).connect(out)
  return {
    stream: kept.stream,
    /** `at` in seconds of the context's clock. */
    strike: (pitch: number, at: number, seconds: number, loudness: number): void => {
      synth.triggerAttackRelease(Frequency(pitch, 'midi').toFrequency(), seconds, at, loudness)
    },
    dispose: (): void => {
      synth.dispose()
      out.dispose()
    },
  }
}
