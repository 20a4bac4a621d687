import { Gain, getContext, Limiter, start } from 'tone'
import type { Phrase } from './sound.ts'
import { type VoicePool, voicePool } from './voice-pool.ts'

/** The level starts low: practice is long and ears do not grow back. */
const LEVEL = 0.16
const CHORD_LOUDNESS = 0.35
const NOTE_LOUDNESS = 0.7

const limiter = new Limiter(-9).toDestination()
const out = new Gain(LEVEL).connect(limiter)
/** Shut between one phrase and the next. */
const door = new Gain(1).connect(out)
const FADE_S = 0.05

const voice = (type: 'triangle' | 'sine', release: number, count: number): VoicePool =>
  voicePool(count, { oscillator: { type }, envelope: { attack: 0.012, decay: 0.25, sustain: 0.5, release } }, door)
const CHORD_VOICES = 16
const NOTE_VOICES = 14
const chordVoice = voice('sine', 0.18, CHORD_VOICES)
const noteVoice = voice('triangle', 0.12, NOTE_VOICES)

/** So often it looks what is due, and so far ahead it strikes: short, so that little is struck that is not wanted any more. */
const EVERY_S = 0.02
const AHEAD_S = 0.08

interface Due {
  readonly by: VoicePool
  readonly pitch: number
  readonly at: number
  readonly seconds: number
  readonly loudness: number
}

const strikesOf = (phrase: Phrase): readonly Due[] => {
  const chords = [{ at: 0, chord: phrase.chord }, ...(phrase.changes ?? [])]
  const struck = chords.flatMap(({ at, chord }, i) => {
    const seconds = (chords[i + 1]?.at ?? phrase.length - 0.6) - at
    return chord.map((pitch): Due => ({ by: chordVoice, pitch, at, seconds, loudness: CHORD_LOUDNESS }))
  })
  const notes = phrase.notes.map(
    ({ pitch, at, length: seconds }): Due => ({ by: noteVoice, pitch, at, seconds, loudness: NOTE_LOUDNESS }),
  )
  return [...struck, ...notes].sort((a, b) => a.at - b.at)
}

let looking: number | undefined
let ending: ReturnType<typeof setTimeout> | undefined
let asked = 0

const stopLooking = (): void => {
  if (looking !== undefined) getContext().clearInterval(looking)
  looking = undefined
}

/** Silence within a tenth of a second, and of what was asked for and does not sound yet. */
export const stop = (): void => {
  asked++
  clearTimeout(ending)
  stopLooking()
  door.gain.rampTo(0, FADE_S)
  for (const pool of [chordVoice, noteVoice]) pool.silence()
}

/** Plays a phrase now, in place of whatever sounds; `done` is called at its end. Needs a tap or key before it. */
export const play = async (phrase: Phrase, done: () => void): Promise<void> => {
  stop()
  const mine = asked
  await start()
  if (mine !== asked) return
  const context = getContext()
  const begins = context.now() + 0.03
  door.gain.cancelScheduledValues(0)
  door.gain.setValueAtTime(1, begins - 0.01)
  const all = strikesOf(phrase)
  let next = 0
  const look = (): void => {
    const until = context.currentTime + AHEAD_S
    for (let due = all[next]; due && begins + due.at < until; due = all[++next])
      due.by.strike(due.pitch, begins + due.at, due.seconds, due.loudness)
    if (next >= all.length) stopLooking()
  }
  looking = context.setInterval(look, EVERY_S)
  ending = setTimeout(done, phrase.length * 1000)
}
