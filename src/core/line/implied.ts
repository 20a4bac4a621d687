import type { Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { plainNote } from '../pitch/note.ts'
import { rotate, setOf, shared, sizeOf } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import type { HeardNote } from './heard.ts'

/** Another way to hear a piece of a line, in words, with how much speaks for it (0..100). */
export interface ImpliedReading {
  readonly from: number
  readonly to: number
  readonly heard: string
  readonly why: string
  readonly score: number
}

const setIn = (notes: readonly HeardNote[]) => setOf(notes.map((n) => pitchClass(n.pitch)))

/** The home scale moved by a half or whole step, where the notes are all in it and mostly not at home. */
const slipped = (notes: readonly HeardNote[], from: number, to: number): ImpliedReading | null => {
  const piece = notes.slice(from, to + 1)
  const place = piece[0]?.sounding?.place
  if (!place || piece.length < 4) return null
  const home = rotate(place.home.first.set, place.chord.root.pc)
  const set = setIn(piece)
  const away = piece.filter((n) => !n.inHome).length
  if (away * 2 <= piece.length) return null
  for (const by of [1, -1, 2, -2]) {
    const inside = sizeOf(shared(set, rotate(home, by)))
    if (inside < sizeOf(set)) continue
    const far = Math.abs(by) === 1 ? 'half' : 'whole'
    const way = by > 0 ? 'up' : 'down'
    return {
      from,
      to,
      heard: `side-slip ${by > 0 ? '+' : ''}${by}`,
      why: `Every note is in the home scale moved ${way} a ${far} step.`,
      score: Math.round(60 + (40 * away) / piece.length),
    }
  }
  return null
}

const KINDS = ['7', 'm7', 'maj7', 'm7b5', 'dim7', ''] as const

/** Every chord that may be heard, with its tones: its kinds on the twelve roots, spelled plainly. */
const HEARABLE: readonly { readonly chord: Chord; readonly own: PcSet }[] = KINDS.flatMap((kind) =>
  Array.from({ length: 12 }, (_, pc) => {
    const read = readChord(plainNote(pitchClass(pc), kind.startsWith('m') && !kind.startsWith('maj')).name + kind)
    if (!read.ok) throw new Error(`not a chord: ${kind} on ${pc}`)
    return { chord: read.value, own: rotate(read.value.quality.ownSet, pc) }
  }),
)

/** Whether a chord says nothing that the one that sounds does not. */
const isSounding = (chord: Chord, sounding: Chord | undefined): boolean => {
  if (!sounding) return false
  const own = rotate(chord.quality.ownSet, chord.root.pc)
  return shared(own, rotate(sounding.quality.ownSet, sounding.root.pc)) === own
}

/** Chords whose tones all the notes of a piece are, other than the one that sounds: at least three of them. */
const chordsHeard = (piece: readonly HeardNote[]): readonly { chord: Chord; share: number }[] => {
  const set = setIn(piece)
  const sounding = piece[0]?.sounding?.place?.chord
  if (sounding && (set & ~rotate(sounding.quality.ownSet, sounding.root.pc)) === 0) return []
  return HEARABLE.flatMap(({ chord, own }) => {
    if (chord.symbol === sounding?.symbol) return []
    const within = sizeOf(shared(set, own))
    return within >= 3 && within === sizeOf(set) ? [{ chord, share: within / sizeOf(own) }] : []
  })
    .filter(
      ({ chord, share }, _, all) => (share === 1 || all.every((a) => a.share < 1)) && !isSounding(chord, sounding),
    )
    .sort((a, b) => b.share - a.share)
}

/** Why a chord could be heard there: by how it stands to the one that sounds and the one that follows. */
const relation = (chord: Chord, n: HeardNote, before: Chord | undefined): string | null => {
  const sounding = n.sounding?.place?.chord
  const next = n.following?.place?.chord
  if (!sounding) return null
  const up = (a: Chord, b: Chord): number => pitchClass(b.root.pc - a.root.pc)
  if (before && up(before, chord) === 0 && up(before, sounding) === 5)
    return `${before.symbol} held over into ${sounding.symbol}, a delayed landing`
  if (next && up(next, chord) === 1) return `a half step above ${next.symbol}, inserted before it`
  if (next && up(next, chord) === 11) return `a half step below ${next.symbol}, inserted before it`
  if (next && up(next, chord) === 0 && chord.family === next.family) return `${next.symbol} come early, an anticipation`
  if (up(sounding, chord) === 6) return `the tritone partner of ${sounding.symbol}`
  return `laid over ${sounding.symbol}`
}

/** For each note, the chord that sounded under the line before the one it stands over. */
const chordsBefore = (notes: readonly HeardNote[]): readonly (Chord | undefined)[] => {
  let before: Chord | undefined
  return notes.map((n, i) => {
    const last = notes[i - 1]
    if (last && last.sounding?.from !== n.sounding?.from) before = last.sounding?.place?.chord
    return before
  })
}

/** How pieces of a line could be heard otherwise than by the chord that sounds, the likeliest first. */
export const impliedIn = (
  notes: readonly HeardNote[],
  pieces: readonly (readonly [number, number])[],
): readonly ImpliedReading[] => {
  const before = chordsBefore(notes)
  return pieces
    .flatMap(([from, to]): readonly ImpliedReading[] => {
      const piece = notes.slice(from, to + 1)
      const slip = slipped(notes, from, to)
      const chords = chordsHeard(piece)
        .slice(0, 3)
        .flatMap(({ chord, share }) => {
          const why = relation(chord, piece[0] as HeardNote, before[from])
          const away = piece.filter((n) => n.role !== 'chord').length / piece.length
          return why
            ? [
                {
                  from,
                  to,
                  heard: chord.symbol,
                  why: `Its notes are ${chord.symbol}: ${why}.`,
                  score: Math.round(100 * share * (0.5 + away / 2)),
                },
              ]
            : []
        })
      return [...(slip ? [slip] : []), ...chords]
    })
    .sort((a, b) => a.from - b.from || b.score - a.score)
}
