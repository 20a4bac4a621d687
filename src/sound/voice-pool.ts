import { Frequency, type Gain, getContext, Synth } from 'tone'

export const hertz = (pitch: number): number => Frequency(pitch, 'midi').toFrequency()

type Made = ConstructorParameters<typeof Synth>[0]

/** Voices that are struck by turns. */
export interface VoicePool {
  /** One note: a MIDI number, and seconds of the context's clock. */
  readonly strike: (pitch: number, at: number, seconds: number, loudness: number) => void
  /** Ends what sounds, and what was struck ahead. */
  readonly silence: () => void
}

/**
 * So many voices, made once and for good. The library's own pool makes and lets go of voices while it plays, and a voice
 * that was let go of goes on costing time of the audio thread for ever: its constant sources are never stopped.
 */
export const voicePool = (count: number, made: Made, to: Gain): VoicePool => {
  const voices = Array.from({ length: count }, () => ({
    synth: new Synth(made).connect(to),
    struck: Number.NEGATIVE_INFINITY,
    until: 0,
  }))
  return {
    strike: (pitch, at, seconds, loudness) => {
      // A voice takes nothing that lies before what it was struck last.
      const free = voices.filter((v) => v.struck < at).sort((a, b) => a.until - b.until)[0]
      if (!free) return
      free.synth.triggerAttackRelease(hertz(pitch), seconds, at, loudness)
      free.struck = at
      free.until = at + seconds
    },
    silence: () => {
      const now = getContext().currentTime
      for (const { synth } of voices) {
        synth.envelope.cancel(now)
        synth.triggerRelease(now)
      }
    },
  }
}
