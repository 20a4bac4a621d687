import { type Chord, isDominant } from '../chord/chord.ts'
import { pitchClass } from '../pitch/units.ts'
import type { SpotInChart } from './context.ts'

/** A chord as long as it stays: one spot, or several that follow each other with the same chord. */
export interface Hold {
  readonly at: number
  readonly chord: Chord
  readonly spots: readonly SpotInChart[]
  readonly ticks: number
}

/** The chords in order, with what comes before and after each; at the ends of a chart that repeats, round the corner. */
export interface Form {
  readonly holds: readonly Hold[]
  readonly repeats: boolean
}

export const holdsOf = (spots: readonly SpotInChart[]): readonly Hold[] => {
  const holds: { chord: Chord; spots: SpotInChart[] }[] = []
  for (const s of spots) {
    const { chord } = s.spot
    if (chord.kind === 'no chord') continue
    const last = holds.at(-1)
    if (last && last.chord.symbol === chord.symbol) last.spots.push(s)
    else holds.push({ chord, spots: [s] })
  }
  return holds.map((h, at) => ({ ...h, at, ticks: h.spots.reduce((sum, s) => sum + s.spot.length, 0) }))
}

/** So many chords on from a hold, or back; null over the edge of a chart that does not repeat, or on itself. */
export const onFrom = ({ holds, repeats }: Form, from: Hold, by: number): Hold | null => {
  const n = holds.length
  const at = from.at + by
  const found = repeats ? holds[((at % n) + n) % n] : holds[at]
  return found && found.chord.symbol !== from.chord.symbol ? found : null
}

/** What a chord moves on to: the next different one; for a dominant the next on another root, since a suspension opens. */
export const goalOf = (form: Form, hold: Hold): Hold | null => {
  for (let by = 1; by <= form.holds.length; by++) {
    const next = onFrom(form, hold, by)
    if (!next) {
      if (form.repeats) continue
      return null
    }
    if (!isDominant(hold.chord) || !isDominant(next.chord) || next.chord.root.pc !== hold.chord.root.pc) return next
  }
  return null
}

/** Semitones up from one root to another, 0..11. */
export const upTo = (from: Chord, to: Chord): number => pitchClass(to.root.pc - from.root.pc)

/** A minor triad, minor seventh or half-diminished chord: what a ii can be. */
export const canBeII = ({ family, quality }: Chord): boolean =>
  family === 'half-diminished' ||
  (family === 'minor' && (quality.recipe.seventh === 'b7' || quality.recipe.seventh === null))

/** The ii that stands right before a dominant, a fifth above it. */
export const iiBefore = (form: Form, hold: Hold): Hold | null => {
  let before = onFrom(form, hold, -1)
  if (before && before.chord.root.pc === hold.chord.root.pc) before = onFrom(form, before, -1)
  return before && canBeII(before.chord) && upTo(before.chord, hold.chord) === 5 ? before : null
}

/** How long chords last together. */
export const ticksOf = (holds: readonly Hold[]): number => holds.reduce((sum, h) => sum + h.ticks, 0)
