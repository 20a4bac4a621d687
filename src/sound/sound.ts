import { type Chord, inversionPath, type Midi, midi, type Overlay, topOf, upwards, voicingOf } from '../core/index.ts'

/** What sounds: one note or a whole overlay against the chord. Times in seconds, pitches in MIDI numbers. */
export interface Phrase {
  readonly chord: readonly Midi[]
  readonly notes: readonly { readonly at: number; readonly length: number; readonly pitch: Midi }[]
  readonly length: number
  /** Chords that take the first one's place, each from its moment. */
  readonly changes?: readonly { readonly at: number; readonly chord: readonly Midi[] }[]
}

/** How an overlay is heard: its order, and the tempo of its eighths in quarters a minute. */
export interface Manner {
  readonly as: 'up' | 'down' | 'chord' | 'triads'
  readonly tempo: number
}

const LEAD = 0.25
const TAIL = 1.2
const HELD = 2.2
const LOW = midi(60)
const HIGH = midi(88)
const TRIADS_PLAYED = 4

/** Pitches one after another over the held chord, as eighths. */
export const inTurn = (pitches: readonly Midi[], chord: Chord, tempo: number): Phrase => {
  const step = 30 / tempo
  const notes = pitches.map((pitch, i) => ({ at: LEAD + i * step, length: step * 0.95, pitch }))
  return { chord: voicingOf(chord), notes, length: LEAD + notes.length * step + TAIL }
}

/** Pitches one after another, each part over its own chord. */
export const inTurnOver = (
  parts: readonly { readonly chord: Chord; readonly pitches: readonly Midi[] }[],
  tempo: number,
): Phrase | null => {
  const [first] = parts
  if (!first) return null
  const step = 30 / tempo
  let at = LEAD
  const changes = parts.map(({ chord, pitches }) => {
    const from = at
    at += pitches.length * step
    return { at: from, chord: voicingOf(chord) }
  })
  const all = inTurn(
    parts.flatMap((p) => p.pitches),
    first.chord,
    tempo,
  )
  return { ...all, changes: changes.slice(1) }
}

/** The overlay over the held chord: upward from its root, downward to it, all at once, or a pair triad by triad. */
export const overlayPhrase = (overlay: Overlay, chord: Chord, { as, tempo }: Manner): Phrase => {
  const up = upwards(overlay.notes, LOW).map((p) => p.pitch)
  switch (as) {
    case 'up':
      return inTurn(up, chord, tempo)
    case 'down':
      return inTurn([...up].reverse(), chord, tempo)
    case 'chord':
      return {
        chord: voicingOf(chord),
        notes: up.map((pitch) => ({ at: LEAD, length: HELD, pitch })),
        length: LEAD + HELD + TAIL,
      }
    case 'triads': {
      if (!overlay.groups) return inTurn(up, chord, tempo)
      const path = inversionPath(overlay.groups, TRIADS_PLAYED, 'climb', LOW, HIGH)
      return inTurn(
        path.flatMap((v) => v.pitches.map((p) => p.pitch)),
        chord,
        tempo,
      )
    }
  }
}

/** One pitch against the chord. */
export const pitchPhrase = (pitch: Midi, chord: Chord): Phrase => ({
  chord: voicingOf(chord),
  notes: [{ at: LEAD, length: 1.2, pitch }],
  length: LEAD + 1.2 + TAIL,
})

/** One note against the chord, on top. */
export const notePhrase = (pc: number, chord: Chord): Phrase => pitchPhrase(midi(topOf(pc)), chord)
