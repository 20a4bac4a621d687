import type { Overlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { directionBetween, type Seam, seamBetween } from '../reading/seam.ts'
import type { RouteStep } from './plan.ts'

/** A way over a seam: the best note to leave from and the one to arrive on. */
export interface Way {
  readonly from: Note
  readonly to: Note
  readonly how: 'half step up' | 'half step down' | 'whole step up' | 'whole step down' | 'held'
  /** Its degree over the chord it arrives on. */
  readonly degree: string
  readonly guide: boolean
}

/** The seam between two neighbouring steps, as a player crosses it. */
export interface Joint extends Seam {
  readonly held: readonly Note[]
  readonly slides: readonly (readonly [Note, Note])[]
  /** Which way the whole set goes: 1 up, -1 down, 0 neither. */
  readonly direction: 1 | 0 | -1
  readonly up: Way | null
  readonly down: Way | null
  /** Notes that both hold, where no other way goes. */
  readonly stay: Way | null
}

const noteIn = (overlay: Overlay, pc: number): Note => overlay.notes.find((n) => n.pc === pc) ?? overlay.root

const MOVES = {
  up: [
    [1, 'half step up'],
    [2, 'whole step up'],
  ],
  down: [
    [11, 'half step down'],
    [10, 'whole step down'],
  ],
  stay: [[0, 'held']],
} as const

/** What the seam needs to know of a step. */
type Crossed = Pick<RouteStep, 'overlay'> & { readonly slot: Pick<RouteStep['slot'], 'chord'> }

/** The best of one direction: by a half step before a whole one, into a guide tone, then a chord tone, then any note. */
const bestWay = (from: Overlay, to: Crossed, moves: (typeof MOVES)[keyof typeof MOVES]): Way | null => {
  const { chord } = to.slot
  const ways = moves.flatMap(([by, how], size) =>
    from.notes.flatMap((note) =>
      to.overlay.notes
        .filter((n) => n.pc === pitchClass(note.pc + by))
        .map((arrives) => {
          const up = pitchClass(arrives.pc - chord.root.pc)
          const guide = has(chord.quality.guideSet, up)
          const worth = (guide ? 4 : has(chord.quality.ownSet, up) ? 2 : 0) - 3 * size
          return { from: note, to: arrives, how, degree: chord.quality.degrees[up]?.name ?? '1', guide, worth }
        }),
    ),
  )
  const [best] = ways.sort((a, b) => b.worth - a.worth)
  if (!best) return null
  const { worth: _, ...way } = best
  return way
}

/** How one step goes on into the next. */
export const jointBetween = (from: Overlay, b: Crossed): Joint => {
  const seam = seamBetween(from, b.overlay)
  return {
    ...seam,
    held: seam.common.map((pc) => noteIn(b.overlay, pc)),
    slides: seam.halfSteps.map(([x, y]) => [noteIn(from, x), noteIn(b.overlay, y)] as const),
    direction: directionBetween(from.set, b.overlay.set),
    up: bestWay(from, b, MOVES.up),
    down: bestWay(from, b, MOVES.down),
    stay: bestWay(from, b, MOVES.stay),
  }
}

/** Whether a route turns at each of its joints: the set goes the other way than it last went. */
export const turnsOf = (joints: readonly Pick<Joint, 'direction'>[]): readonly boolean[] => {
  let last = 0
  return joints.map(({ direction }) => {
    const turns = direction !== 0 && last !== 0 && direction !== last
    if (direction !== 0) last = direction
    return turns
  })
}
