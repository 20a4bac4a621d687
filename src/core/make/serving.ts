import { type Chord, isDominant } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { placeOf } from '../reading/read.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import { type Lick, type LickPart, leadingTone, partsOf, seatOf } from './lick.ts'

/** A chord, or a dominant going home, that a lick serves as it stands. */
export interface Serving {
  readonly family: string
  /** One symbol, or two for a dominant going home: `E7 Am6`. */
  readonly chord: string
  readonly startDegree: string
  readonly fade: number
  readonly landing: number
  readonly why: string
}

/** One chord type of each kind a lick may serve. */
const TYPES = ['maj7', '6', 'm7', 'm6', 'mMaj7', '7', '7b9', '7#11', '7alt', '7sus4', 'm7b5', 'dim7', 'maj7#5'] as const
const TONICS = ['maj7', '6', 'm7', 'm6'] as const
const RELATIONS = [
  'on its own root',
  ...['a half step above', 'a whole step above', 'a minor third above', 'a major third above', 'a fourth above'],
  ...['a tritone away', 'a fifth above', 'a major third below', 'a minor third below', 'a whole step below'],
  'a half step below',
] as const

const chordOn = (pc: number, type: string): Chord | null => {
  const minor = /^m(?!aj)|dim/.test(type)
  const read = readChord(plainNote(pitchClass(pc), minor).name + type)
  return read.ok ? read.value : null
}

/** The dominant of a chord's root, as a symbol. */
export const dominantOf = (chord: Chord): string =>
  chord.family === 'dominant' ? chord.symbol : `${plainNote(pitchClass(chord.root.pc + 7)).name}7`

const reason = (degree: string, own: Chord, chord: Chord): string =>
  `From the ${degree} of ${chord.symbol}, the ${chord.family} chord ${RELATIONS[pitchClass(chord.root.pc - own.root.pc)]}`

const single = (lick: Lick, own: Chord, gate: boolean, school: School, weights: Weights): readonly Serving[] =>
  Array.from({ length: 12 }, (_, pc) => pc).flatMap((pc) =>
    TYPES.flatMap((type): readonly Serving[] => {
      const chord = chordOn(pc, type)
      if (!chord || (isDominant(chord) && !gate)) return []
      const seat = seatOf(lick, placeOf(chord, null, school, null), 0, weights)
      if (!seat) return []
      const more =
        seat.fade < 10 ? 'it stays inside' : seat.landing >= 70 ? 'with colour that comes home' : 'with colour'
      const why = `${reason(seat.startDegree, own, chord)}: ${more}.`
      return [{ family: chord.family, chord: chord.symbol, ...told(seat), why }]
    }),
  )

const told = ({ startDegree, fade, landing }: { startDegree: string; fade: number; landing: number }) => ({
  startDegree,
  fade,
  landing,
})

const piece = (lick: Lick, { from, to }: LickPart): Lick => ({ ...lick, line: lick.line.slice(from, to + 1) })

/** The dominant half over a V and the rest over its tonic, wherever both sit. */
const goingHome = (lick: Lick, parts: readonly LickPart[], school: School, weights: Weights): readonly Serving[] => {
  const [first, second] = parts
  if (!first?.isDominant || !second || second.isDominant) return []
  const [before, after] = [piece(lick, first), piece(lick, second)]
  return Array.from({ length: 12 }, (_, pc) => pc).flatMap((pc) =>
    TONICS.flatMap((type): readonly Serving[] => {
      const [v, i] = [chordOn(pc + 7, '7'), chordOn(pc, type)]
      if (!v || !i || !before.line.some((n) => pitchClass(n.pitch) === leadingTone(v))) return []
      const a = seatOf(before, placeOf(v, i, school), 0, weights)
      const b = seatOf(after, placeOf(i, null, school, null), 0, weights)
      if (!a || !b) return []
      const count = [before.line.length, after.line.length] as const
      const fade = Math.round((a.fade * count[0] + b.fade * count[1]) / (count[0] + count[1]))
      const family = i.family === 'minor' ? 'dominant to minor' : 'dominant to major'
      const why = `Its first half is ${v.symbol}, from its ${a.startDegree}; its second half is ${i.symbol}, home.`
      const landing = Math.min(a.landing, b.landing)
      return [{ family, chord: `${v.symbol} ${i.symbol}`, startDegree: a.startDegree, fade, landing, why }]
    }),
  )
}

const best = (a: Serving, b: Serving): number => a.fade - b.fade || b.landing - a.landing

/**
 * Which chord types a lick serves at its own pitch, best first. A lick without a dominant's sound in it is offered for no
 * dominant. Source: make page, reuse.
 */
export const servingsOf = (
  lick: Lick,
  own: Chord,
  school: School,
  weights: Weights,
): { readonly parts: readonly LickPart[]; readonly serves: readonly Serving[] } => {
  const parts = partsOf(lick, own, dominantOf(own))
  const gate = parts.some((p) => p.isDominant)
  const serves = [...single(lick, own, gate, school, weights), ...goingHome(lick, parts, school, weights)]
  return { parts, serves: [...serves].sort(best) }
}
