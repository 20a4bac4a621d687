import { MATERIALS, type Material } from '../material/material.ts'
import { notesOverlay, type Overlay, placeOn } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { rotate, setOf, shared, union } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { readOver } from '../reading/read.ts'
import type { Place } from '../reading/role.ts'
import type { Weights } from '../reading/weights.ts'

/** Three notes taken as every other one of six: what triad they stack to in thirds, and in which position they stood. */
export interface Group {
  readonly notes: readonly Note[]
  readonly triad: Overlay | null
  /** 0 root position, 1 first, 2 second inversion; null where they stack to no triad of the catalogue. */
  readonly inversion: number | null
}

/** One way to leave a note of a scale out. */
export interface Omission {
  readonly degree: string
  readonly note: Note
  readonly six: readonly Note[]
  readonly groups: readonly [Group, Group]
  /** Fade of the six notes over the chord. */
  readonly fade: number
}

export interface Derivation {
  readonly scale: Overlay
  /** What was left out and why; null for a scale that has six notes already. */
  readonly dropped: { readonly omission: Omission; readonly why: string } | null
  readonly six: readonly Note[]
  readonly groups: readonly [Group, Group]
  /** Other disjoint splits of the six into two catalogue triads, where a group is no tertian triad. */
  readonly otherSplits: readonly (readonly [Overlay, Overlay])[]
  readonly all: readonly Omission[]
}

const TRIADS = MATERIALS.filter((m) => m.family === 'triad')
/** Stacks of thirds only: the others are no answer to "stack in thirds". */
const TERTIAN = TRIADS.filter((m) => ['', 'm', 'dim', '+', 'major b5 triad'].includes(m.name))

const triadOn = (notes: readonly Note[], among: readonly Material[]): { triad: Overlay; root: number } | null => {
  const set = setOf(notes.map((n) => n.pc))
  for (const [root, note] of notes.entries()) {
    const material = among.find((m) => rotate(m.set, note.pc) === set)
    if (material) return { triad: placeOn(note, material), root }
  }
  return null
}

/** The note in the bass is the first: the root itself, the third, or the fifth. */
const groupOf = (notes: readonly Note[]): Group => {
  const found = triadOn(notes, TERTIAN)
  const inversion = found === null ? null : ([0, 2, 1][found.root] ?? null)
  return { notes, triad: found?.triad ?? null, inversion }
}

/** Every other note of six, from the first and from the second. */
const alternate = (six: readonly Note[]): readonly [Group, Group] => [
  groupOf(six.filter((_, i) => i % 2 === 0)),
  groupOf(six.filter((_, i) => i % 2 === 1)),
]

const omit = (scale: Overlay, index: number, place: Place, weights: Weights): Omission | null => {
  const note = scale.notes[index]
  const degree = scale.material?.formula[index]?.name
  const six = scale.notes.filter((_, i) => i !== index)
  const [first, ...rest] = six
  if (!note || !degree || !first) return null
  return {
    degree,
    note,
    six,
    groups: alternate(six),
    fade: readOver(notesOverlay([first, ...rest]), place, weights).fade,
  }
}

const splitsOf = (six: readonly Note[], taken: readonly Group[]): readonly (readonly [Overlay, Overlay])[] => {
  const whole = setOf(six.map((n) => n.pc))
  const held = six.flatMap((n) =>
    TRIADS.filter((m) => (rotate(m.set, n.pc) & whole) === rotate(m.set, n.pc)).map((m) => placeOn(n, m)),
  )
  const already = new Set<PcSet>(taken.map((g) => setOf(g.notes.map((n) => n.pc))))
  const splits: (readonly [Overlay, Overlay])[] = []
  for (const [i, a] of held.entries())
    for (const b of held.slice(i + 1))
      if (shared(a.set, b.set) === 0 && union(a.set, b.set) === whole && !already.has(a.set)) splits.push([a, b])
  return splits
}

/** The suspension where there is exactly one; on Dorian before its V the 6; else the omission whose six notes lie lowest. */
const choose = (
  scale: Overlay,
  all: readonly Omission[],
  place: Place,
  weights: Weights,
): readonly [Omission, string] => {
  const reading = readOver(scale, place, weights)
  const suspensions = reading.notes.filter((n) => n.role === 'suspension')
  const of = (pc: number) => all.find((o) => o.note.pc === pc)
  const kept = reading.notes.find((n) => n.keptBack)
  const back = kept && of(kept.note.pc)
  if (back && scale.material?.name === 'dorian') return [back, 'it is the 3 of the coming V, kept back for it']
  const only = suspensions.length === 1 ? of(suspensions[0]?.note.pc ?? -1) : undefined
  if (only) return [only, `it is the one suspension over ${place.chord.symbol}`]
  const lowest = all.reduce((best, o) => (o.fade < best.fade ? o : best))
  const why = suspensions.length === 0 ? 'no note is a suspension' : 'several notes are suspensions'
  return [lowest, `${why}; without it the fade is lowest over ${place.chord.symbol}`]
}

const divide = (
  scale: Overlay,
  six: readonly Note[],
  groups: readonly [Group, Group],
  dropped: Derivation['dropped'],
  all: readonly Omission[],
): Derivation => {
  const tertian = groups.every((g) => g.triad !== null)
  return { scale, dropped, six, groups, otherSplits: tertian ? [] : splitsOf(six, groups), all }
}

/**
 * Two triads out of a scale of seven notes, leaving one out, or of six: take every other one, name each group. `omitted`
 * is a degree of the scale's formula, or null for the usual choice. Null where the scale has no such degree or another
 * number of notes. Source: theory page, section 6.
 */
export const derivePairs = (
  scale: Overlay,
  omitted: string | null,
  place: Place,
  weights: Weights,
): Derivation | null => {
  if (scale.material === null) return null
  if (scale.notes.length === 6 && omitted === null) return divide(scale, scale.notes, alternate(scale.notes), null, [])
  if (scale.notes.length !== 7) return null
  const all = scale.notes.map((_, i) => omit(scale, i, place, weights)).filter((o): o is Omission => o !== null)
  const asked = omitted === null ? null : all.find((o) => o.degree === omitted)
  if (asked === undefined) return null
  const [omission, why] = asked ? ([asked, 'you chose it'] as const) : choose(scale, all, place, weights)
  return divide(scale, omission.six, omission.groups, { omission, why }, all)
}

/** The scale's own seventh chord on its first note, for a derivation asked without a chord. */
export const ownSymbol = (scale: Overlay): string => {
  const has = (n: number): boolean => ((scale.set >> ((scale.root.pc + n) % 12)) & 1) === 1
  const third = has(4) ? '' : 'm'
  const seventh = has(11) ? (third ? 'Maj7' : 'maj7') : has(10) ? '7' : '6'
  const fifth = has(7) ? '' : has(6) ? 'b5' : '#5'
  return `${scale.root.name}${third}${seventh}${fifth}`
}
