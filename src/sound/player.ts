import { Frequency, Gain, getContext, Limiter, PolySynth, Synth, start } from 'tone'
import type { Phrase } from './sound.ts'

/** The level starts low: practice is long and ears do not grow back. */
const LEVEL = 0.16
const CHORD_LOUDNESS = 0.35
const NOTE_LOUDNESS = 0.7

const limiter = new Limiter(-9).toDestination()
const out = new Gain(LEVEL).connect(limiter)
const FADE_S = 0.05

const voice = (type: 'triangle' | 'sine', release: number, into: Gain) => {
  const synth = new PolySynth(Synth, {
    oscillator: { type },
    envelope: { attack: 0.012, decay: 0.25, sustain: 0.5, release },
  })
  synth.maxPolyphony = 24
  return synth.connect(into)
}
/** Voices of one phrase: what they have yet to play goes with them. */
const voicesOfPhrase = () => {
  const level = new Gain(1).connect(out)
  const all = { level, chord: voice('sine', 0.18, level), note: voice('triangle', 0.12, level) }
  const silence = () => {
    level.gain.rampTo(0, FADE_S)
    setTimeout(() => {
      for (const part of [all.chord, all.note, level]) part.dispose()
    }, FADE_S * 2000)
  }
  return { ...all, silence }
}

const hertz = (pitch: number): number => Frequency(pitch, 'midi').toFrequency()

let ending: ReturnType<typeof setTimeout> | undefined
let sounding: ReturnType<typeof voicesOfPhrase> | null = null
let asked = 0

/** Silence within a tenth of a second, and of what was asked for and does not sound yet. */
export const stop = (): void => {
  asked++
  clearTimeout(ending)
  sounding?.silence()
  sounding = null
}

/** Plays a phrase now, in place of whatever sounds; `done` is called at its end. Needs a tap or key before it. */
export const play = async (phrase: Phrase, done: () => void): Promise<void> => {
  stop()
  const mine = asked
  await start()
  if (mine !== asked) return
  const voices = voicesOfPhrase()
  sounding = voices
  const now = getContext().now() + 0.03
  const chords = [{ at: 0, chord: phrase.chord }, ...(phrase.changes ?? [])]
  for (const [i, { at, chord }] of chords.entries()) {
    const length = (chords[i + 1]?.at ?? phrase.length - 0.6) - at
    voices.chord.triggerAttackRelease(chord.map(hertz), length, now + at, CHORD_LOUDNESS)
  }
  for (const n of phrase.notes) voices.note.triggerAttackRelease(hertz(n.pitch), n.length, now + n.at, NOTE_LOUDNESS)
  ending = setTimeout(done, phrase.length * 1000)
}
