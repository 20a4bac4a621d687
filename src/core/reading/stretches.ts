import type { AnalysedSpot } from '../chart/analyse.ts'
import type { Note } from '../pitch/note.ts'
import { rotate } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { homeOverlay } from './home.ts'
import { placeOf } from './read.ts'
import type { Place } from './role.ts'
import type { School } from './school.ts'

/** A half step from a note of one parent scale into a note of the next. */
export interface Join {
  readonly from: Note
  readonly to: Note
}

/** Neighbouring spots whose home scales are the same notes: one parent scale, under the first one's name. */
export interface Stretch {
  readonly first: AnalysedSpot
  readonly last: AnalysedSpot
  readonly scale: string
  readonly notes: readonly Note[]
  /** What moves by a half step into the next stretch; empty on the last. */
  readonly joins: readonly Join[]
}

/** Half steps from what only the one has into what only the other has. */
const joinsBetween = (from: readonly Note[], to: readonly Note[]): readonly Join[] => {
  const [leaving, arriving] = [
    from.filter((a) => !to.some((b) => b.pc === a.pc)),
    to.filter((b) => !from.some((a) => a.pc === b.pc)),
  ]
  return leaving.flatMap((a) =>
    arriving.filter((b) => [1, 11].includes(pitchClass(b.pc - a.pc))).map((b) => ({ from: a, to: b })),
  )
}

const homeAt = (s: AnalysedSpot, school: School): { place: Place; set: PcSet } | null => {
  if (s.spot.chord.kind === 'no chord') return null
  const place = placeOf(s.spot.chord, s.next, school, s.job)
  return { place, set: rotate(place.home.first.set, s.spot.chord.root.pc) }
}

/**
 * Stretches of one parent scale through a chart, merged across its chords, and the half steps that join each to the
 * next. Source: theory page, section 7.
 */
export const stretchesOf = (spots: readonly AnalysedSpot[], school: School): readonly Stretch[] => {
  const stretches: (Omit<Stretch, 'joins'> & { set: PcSet })[] = []
  for (const s of spots) {
    const home = homeAt(s, school)
    if (!home) continue
    const last = stretches.at(-1)
    if (last && last.set === home.set) {
      stretches[stretches.length - 1] = { ...last, last: s }
      continue
    }
    const { name, notes } = homeOverlay(home.place.home.first)
    stretches.push({ first: s, last: s, scale: name, notes, set: home.set })
  }
  return stretches.map(({ set: _, ...s }, i) => ({
    ...s,
    joins: joinsBetween(s.notes, stretches[i + 1]?.notes ?? s.notes),
  }))
}
