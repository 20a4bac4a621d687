import type { HeardNote } from '../line/heard.ts'
import { nameSet } from '../material/naming.ts'
import { notesOverlay, type Overlay } from '../material/overlay.ts'
import { rotate, setOf, sizeOf } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import type { PlanStep } from './plan.ts'

/** The same notes laid over chord after chord. */
export interface OneDevice {
  readonly overlay: Overlay
  readonly chord: string
  /** Chords it was laid over, of how many. */
  readonly times: number
  readonly of: number
  readonly notes: readonly HeardNote[]
}

const FEWEST_NOTES = 4
/** A set of more is a scale, and scales over chords of a kind are alike. */
const MOST_NOTES = 6
const FEWEST_TIMES = 4
const FEWEST_ROOTS = 3
const MOST_OF = 0.6

interface OverChord {
  readonly root: number
  /** From the chord's root. */
  readonly set: PcSet
  readonly own: readonly HeardNote[]
}

const overChords = (notes: readonly HeardNote[]): readonly OverChord[] => {
  const spans = new Map<number, HeardNote[]>()
  for (const n of notes) {
    if (!n.sounding?.place) continue
    const own = spans.get(n.sounding.from) ?? []
    own.push(n)
    spans.set(n.sounding.from, own)
  }
  return [...spans.values()].flatMap((own) => {
    const root = own[0]?.sounding?.place?.chord.root.pc
    const beyond = own.some((n) => n.role !== 'chord')
    if (root === undefined || own.length < FEWEST_NOTES || !beyond) return []
    return [{ root, set: setOf(own.map((n) => pitchClass(n.pitch - root))), own }]
  })
}

/** Chords on the move: one that sounds on counts once, however many bars it lasts. */
const chordsPlayed = (notes: readonly HeardNote[]): number =>
  new Set(notes.flatMap((n) => (n.sounding?.place ? [n.sounding.from] : []))).size

const isWithin = (set: PcSet, most: PcSet): boolean => (set & most) === set

/** How much of the plan asks for just these notes over its chords. */
const plannedShare = (steps: readonly PlanStep[], set: PcSet): number => {
  const laid = steps.flatMap((s) => {
    const root = s.notes[0]?.sounding?.place?.chord.root.pc
    return s.overlay && root !== undefined ? [rotate(s.overlay.set, -root)] : []
  })
  return laid.length === 0 ? 0 : laid.filter((own) => isWithin(set, own)).length / laid.length
}

/** One device laid over most chords, where the plan does not ask for it; null where the playing has more than one. */
export const oneDeviceIn = (notes: readonly HeardNote[], steps: readonly PlanStep[]): OneDevice | null => {
  const over = overChords(notes)
  const of = chordsPlayed(notes)
  let best: readonly OverChord[] = []
  for (const { set } of over) {
    if (sizeOf(set) < FEWEST_NOTES || sizeOf(set) > MOST_NOTES) continue
    const same = over.filter((o) => isWithin(o.set, set) && sizeOf(o.set) >= sizeOf(set) - 1)
    if (same.length > best.length) best = same
  }
  const [first] = best
  const roots = new Set(best.map((o) => o.root))
  if (!first || best.length < FEWEST_TIMES || roots.size < FEWEST_ROOTS || best.length < MOST_OF * of) return null
  const set = best.reduce((all, o) => all | o.set, 0) as PcSet
  if (plannedShare(steps, set) >= 0.5) return null
  const [one, ...others] = first.own.map((n) => n.name)
  if (!one) return null
  const played = notesOverlay([one, ...others])
  const names = nameSet(played)
  return {
    overlay: names.equal[0] ?? names.within[0] ?? played,
    chord: first.own[0]?.sounding?.spot.spot.chord.symbol ?? '',
    ...{ times: best.length, of, notes: best.flatMap((o) => o.own) },
  }
}
