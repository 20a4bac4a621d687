import { Frequency, Gain, getContext, Limiter, PolySynth, Synth, start } from 'tone'
import type { Phrase } from './sound.ts'

/** The level starts low: practice is long and ears do not grow back. */
const LEVEL = 0.16
const CHORD_LOUDNESS = 0.35
const NOTE_LOUDNESS = 0.7

const limiter = new Limiter(-9).toDestination()
const out = new Gain(LEVEL).connect(limiter)
const voice = (type: 'triangle' | 'sine', release: number) => {
  const synth = new PolySynth(Synth, {
    oscillator: { type },
    envelope: { attack: 0.012, decay: 0.25, sustain: 0.5, release },
  })
  synth.maxPolyphony = 24
  return synth.connect(out)
}
const chordVoice = voice('sine', 0.18)
const noteVoice = voice('triangle', 0.12)

const hertz = (pitch: number): number => Frequency(pitch, 'midi').toFrequency()

let ending: ReturnType<typeof setTimeout> | undefined

/** Silence within a tenth of a second. */
export const stop = (): void => {
  clearTimeout(ending)
  chordVoice.releaseAll()
  noteVoice.releaseAll()
}

/** Plays a phrase now, in place of whatever sounds; `done` is called at its end. Needs a tap or key before it. */
export const play = async (phrase: Phrase, done: () => void): Promise<void> => {
  stop()
  await start()
  const now = getContext().now() + 0.03
  const chords = [{ at: 0, chord: phrase.chord }, ...(phrase.changes ?? [])]
  for (const [i, { at, chord }] of chords.entries()) {
    const length = (chords[i + 1]?.at ?? phrase.length - 0.6) - at
    chordVoice.triggerAttackRelease(chord.map(hertz), length, now + at, CHORD_LOUDNESS)
  }
  for (const n of phrase.notes) noteVoice.triggerAttackRelease(hertz(n.pitch), n.length, now + n.at, NOTE_LOUDNESS)
  ending = setTimeout(done, phrase.length * 1000)
}
