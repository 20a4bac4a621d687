import { type Chord, type Midi, midi, type Overlay, topOf, voicingOf } from '../core/index.ts'

/** What sounds: one note or a whole overlay against the chord. Times in seconds, pitches in MIDI numbers. */
export interface Phrase {
  readonly chord: readonly Midi[]
  readonly notes: readonly { readonly at: number; readonly length: number; readonly pitch: Midi }[]
  readonly length: number
}

const NOTE = 0.32
const LEAD = 0.25
const TAIL = 1.2

const nextAbove = (pc: number, last: number): Midi => {
  let pitch: number = topOf(pc)
  while (pitch - 12 > last) pitch -= 12
  while (pitch <= last) pitch += 12
  return midi(pitch)
}

/** The overlay's notes upward from its root, each above the last, over the held chord. */
export const overlayPhrase = (overlay: Overlay, chord: Chord): Phrase => {
  let last = midi(59)
  const notes = overlay.notes.map(({ pc }, i) => {
    last = nextAbove(pc, last)
    return { at: LEAD + i * NOTE, length: NOTE * 0.95, pitch: last }
  })
  return { chord: voicingOf(chord), notes, length: LEAD + notes.length * NOTE + TAIL }
}

/** One note against the chord. */
export const notePhrase = (pc: number, chord: Chord): Phrase => ({
  chord: voicingOf(chord),
  notes: [{ at: LEAD, length: 1.2, pitch: midi(topOf(pc)) }],
  length: LEAD + 1.2 + TAIL,
})
