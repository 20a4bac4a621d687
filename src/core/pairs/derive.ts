import { MATERIALS, type Material } from '../material/material.ts'
import { notesOverlay, type Overlay, placeOn } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has, rotate, setOf, shared, union } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
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

/** One way to leave a note of a scale out, or two of a scale of eight: `b9, 5`. */
export interface Omission {
  readonly degree: string
  /** What is left out; of two notes the lower degree first. */
  readonly left: readonly [Note, ...Note[]]
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

const omit = (scale: Overlay, out: readonly number[], place: Place, weights: Weights): Omission | null => {
  const [left, ...more] = out.flatMap((i) => scale.notes[i] ?? [])
  const names = out.flatMap((i) => scale.material?.formula[i]?.name ?? [])
  const six = scale.notes.filter((_, i) => !out.includes(i))
  const [first, ...rest] = six
  if (!left || !first || names.length !== out.length) return null
  const { fade } = readOver(notesOverlay([first, ...rest]), place, weights)
  return { degree: names.join(', '), left: [left, ...more], six, groups: alternate(six), fade }
}

/** Which notes can be left out so that six remain: each one of seven, each two of eight. */
const waysOut = (size: number): readonly (readonly number[])[] => {
  const all = Array.from({ length: size }, (_, i) => i)
  return size === 7 ? all.map((i) => [i]) : all.flatMap((i) => all.slice(i + 1).map((j) => [i, j]))
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

/** The notes that make a mode what it is: never the ones to leave out unasked. */
const CHARACTER: Readonly<Record<string, readonly string[]>> = {
  ionian: ['7'],
  dorian: ['6'],
  phrygian: ['b2'],
  lydian: ['#4'],
  mixolydian: ['b7'],
  aeolian: ['b6'],
  locrian: ['b5'],
  'melodic minor': ['6', '7'],
  'dorian b2': ['b2', '6'],
  'lydian augmented': ['#4', '#5'],
  'lydian dominant': ['#4', 'b7'],
  'mixolydian b6': ['b6'],
  'locrian natural 9': ['2', 'b5'],
  altered: ['b4', 'b7'],
  'harmonic minor': ['b6', '7'],
  'phrygian dominant': ['b2', '3'],
  'harmonic major': ['b6', '7'],
}

/** What may be left out unasked: no tension the symbol states, nor what makes the mode what it is. */
const mayGo = (scale: Overlay, place: Place): ((o: Omission) => boolean) => {
  const { chord } = place
  const makes = new Set(CHARACTER[scale.material?.name ?? ''] ?? [])
  const stated = (n: Note): boolean => has(chord.quality.statedSet, pitchClass(n.pc - chord.root.pc))
  return (o) => !o.left.some(stated) && !o.degree.split(', ').some((d) => makes.has(d))
}

/**
 * On Dorian before its V the 6; the suspension where there is exactly one; else the omission whose six notes lie lowest,
 * of eight notes one that leaves two triads where there is any.
 */
const choose = (
  scale: Overlay,
  all: readonly Omission[],
  place: Place,
  weights: Weights,
): readonly [Omission, string] => {
  const reading = readOver(scale, place, weights)
  const single = (pc: number) => all.find((o) => o.left.length === 1 && o.left[0].pc === pc)
  const kept = reading.notes.find((n) => n.keptBack)
  const back = kept && single(kept.note.pc)
  if (back && scale.material?.name === 'dorian') return [back, 'it is the 3 of the coming V, kept back for it']
  const allowed = all.filter(mayGo(scale, place))
  const suspensions = reading.notes.filter((n) => n.role === 'suspension')
  const only = suspensions.length === 1 ? single(suspensions[0]?.note.pc ?? -1) : undefined
  if (only && allowed.includes(only)) return [only, `it is the one suspension over ${place.chord.symbol}`]
  const paired = allowed.filter((o) => o.groups.every((g) => g.triad !== null))
  const open = scale.notes.length > 7 && paired.length > 0 ? paired : allowed.length > 0 ? allowed : all
  const lowest = open.reduce((best, o) => (o.fade < best.fade ? o : best))
  const why =
    scale.notes.length > 7
      ? 'two of eight notes go'
      : suspensions.length === 0
        ? 'no note is a suspension'
        : only
          ? 'the one suspension is what the symbol or the mode is about'
          : 'several notes are suspensions'
  return [
    lowest,
    `${why}; without ${lowest.left.length > 1 ? 'them' : 'it'} the fade is lowest over ${place.chord.symbol}`,
  ]
}

/** Whether two lists of degrees name the same ones, in any order. */
const sameDegrees = (a: string, b: string): boolean =>
  a
    .split(/[\s,]+/)
    .sort()
    .join() ===
  b
    .split(/[\s,]+/)
    .filter(Boolean)
    .sort()
    .join()

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
 * Two triads out of a scale of seven notes, leaving one out, of eight, leaving two, or of six: take every other one, name
 * each group. `omitted` is a degree of the scale's formula (two of eight notes), or null for the usual choice. Null where the scale has no such degree or another
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
  if (scale.notes.length !== 7 && scale.notes.length !== 8) return null
  const all = waysOut(scale.notes.length)
    .map((out) => omit(scale, out, place, weights))
    .filter((o): o is Omission => o !== null)
  const asked = omitted === null ? null : all.find((o) => sameDegrees(o.degree, omitted))
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
