import type { Chord } from '../chord/chord.ts'
import type { Note } from '../pitch/note.ts'
import { homeOf } from './home.ts'
import { roleSets } from './role.ts'
import type { School } from './school.ts'
import { EXIT_STRENGTHS, ROOT_HELD } from './weights.ts'

export type ExitHow = 'held' | 'half step down' | 'half step up' | 'whole step down' | 'whole step up'
/** What a note of the next chord is to a line that lands there, by its place in this list. */
export const TARGET_KINDS = ['none', 'guide', 'chord', 'extension'] as const
/** One way from a note into the next chord; `strength` 0..1, unrounded. */
export interface Exit {
  readonly to: Note
  readonly degree: string
  readonly how: ExitHow
  readonly guide: boolean
  readonly strength: number
}

/** Where a line can land: the next chord, and an index into `TARGET_KINDS` for each number of semitones above its root. */
export interface Targets {
  readonly next: Chord
  readonly kinds: readonly number[]
  /** The exits of each pitch class that was asked about. */
  readonly known: Map<number, readonly Exit[]>
}

/** Worked out once for each chord by each school. */
const remembered = new WeakMap<School, WeakMap<Chord, Targets>>()

/** The next chord's own tones, and the extensions its home scale holds (read with nothing further known). */
export const targetsOf = (next: Chord, school: School): Targets => {
  const bySchool = remembered.get(school) ?? new WeakMap<Chord, Targets>()
  const before = bySchool.get(next)
  if (before) return before
  const made = workedOut(next, school)
  remembered.set(school, bySchool.set(next, made))
  return made
}

const workedOut = (next: Chord, school: School): Targets => {
  const home = homeOf(next, null, null, school)
  const roles = roleSets(next, home, null, school)
  const { guideSet } = next.quality
  const extension = roles.extension & home.inside
  const kinds: number[] = []
  for (let up = 0; up < 12; up++) {
    const bit = 1 << up
    kinds.push(roles.chord & bit ? (guideSet & bit ? 1 : 2) : extension & bit ? 3 : 0)
  }
  return { next, kinds, known: new Map() }
}

const MOVES: readonly (readonly [number, ExitHow, 'held' | 'half' | 'whole'])[] = [
  [0, 'held', 'held'],
  [-1, 'half step down', 'half'],
  [1, 'half step up', 'half'],
  [-2, 'whole step down', 'whole'],
  [2, 'whole step up', 'whole'],
]

interface Way {
  readonly kind: number
  /** Its place in `MOVES`. */
  readonly move: number
  readonly by: number
  readonly how: ExitHow
  readonly strength: number
}

/** Every way there is, strongest first, then guide tones, then downward: the order in which exits are listed. */
const WAYS: readonly Way[] = TARGET_KINDS.flatMap((name, kind) =>
  name === 'none'
    ? []
    : MOVES.map(([by, how, size], move): Way => ({ kind, move, by, how, strength: EXIT_STRENGTHS[name][size] })),
)
  .filter((w) => w.strength > 0)
  .sort((a, b) => b.strength - a.strength || Number(b.kind === 1) - Number(a.kind === 1) || a.by - b.by)

/** The ways open in each surrounding: two bits for what lies at each move, so that no note has to try them all. */
const OPEN_WAYS: readonly (readonly Way[])[] = Array.from({ length: 4 ** MOVES.length }, (_, surrounding) =>
  WAYS.filter(({ kind, move }) => ((surrounding >> (2 * move)) & 3) === kind),
)

/** Every exit of a pitch class, strongest first, then guide tones, then downward. */
export const exitsOf = (pc: number, targets: Targets): readonly Exit[] => {
  const before = targets.known.get(pc)
  if (before) return before
  const ways = waysFrom(pc, targets)
  const exits = pc === targets.next.root.pc ? atRoot(ways) : ways
  targets.known.set(pc, exits)
  return exits
}

/** The next chord's root that sounds already: held is its first exit, and the 7 below it comes after. */
const atRoot = (ways: readonly Exit[]): readonly Exit[] =>
  ways
    .map((e): Exit => (e.how === 'held' || e.how === 'half step down' ? { ...e, strength: ROOT_HELD[e.how] } : e))
    .sort((a, b) => Number(b.how === 'held') - Number(a.how === 'held') || b.strength - a.strength)

const waysFrom = (pc: number, { next, kinds }: Targets): readonly Exit[] => {
  const up = pc - next.root.pc + 24
  let surrounding = 0
  for (let move = 0; move < MOVES.length; move++)
    surrounding |= (kinds[(up + (MOVES[move]?.[0] ?? 0)) % 12] ?? 0) << (2 * move)
  return (OPEN_WAYS[surrounding] ?? []).map(({ kind, by, how, strength }): Exit => {
    const at = (up + by) % 12
    const degree = next.quality.degrees[at]?.name ?? '1'
    return { to: next.heard[at] ?? next.root, degree, how, guide: kind === 1, strength }
  })
}
