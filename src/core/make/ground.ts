import { tonesOf } from '../chord/chord.ts'
import type { Overlay } from '../material/overlay.ts'
import type { Note } from '../pitch/note.ts'
import { has, setOf } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { homeOverlay } from '../reading/home.ts'
import type { Sounding, Timeline } from '../time/timeline.ts'

/** An overlay from a moment on, in ticks; null where nothing is laid: the home scale sounds there. */
export interface LaidFrom {
  readonly from: number
  readonly overlay: Overlay | null
}

/** Which material sounds when: each chord's home scale, its own arpeggio, or what is laid from moment to moment. */
export type MakePlan = 'home' | 'chord' | readonly LaidFrom[]

/** Notes that groups are made of: a scale, an arpeggio, or one triad of a pair. */
export interface Material {
  readonly name: string
  readonly root: Note
  readonly set: PcSet
  readonly notes: readonly Note[]
  /** Counted in thirds from its root: 1 3 5 is the triad. */
  readonly inThirds: boolean
}

/** Where one material sounds, in ticks; the two triads of a pair are two materials. */
export interface MaterialSpan {
  readonly from: number
  readonly to: number
  readonly name: string
  readonly materials: readonly [Material, ...Material[]]
}

const materialOf = ({ name, root, set, notes }: Overlay): Material => ({
  ...{ name, root, set, notes },
  inThirds: notes.length < 5,
})

const materialsOf = (overlay: Overlay): MaterialSpan['materials'] =>
  overlay.groups ? [materialOf(overlay.groups[0]), materialOf(overlay.groups[1])] : [materialOf(overlay)]

const ofChord = ({ place }: Sounding): Omit<MaterialSpan, 'from' | 'to'> | null => {
  if (!place) return null
  const { chord } = place
  const notes = tonesOf(chord)
    .filter((t) => !t.stated)
    .map((t) => t.note)
  const set = setOf(notes.map((n) => n.pc))
  return { name: chord.symbol, materials: [{ name: chord.symbol, root: chord.root, set, notes, inThirds: true }] }
}

const ofHome = ({ place }: Sounding): Omit<MaterialSpan, 'from' | 'to'> | null => {
  if (!place) return null
  const home = homeOverlay(place.home.first)
  return { name: home.name, materials: materialsOf(home) }
}

const laidOver = (sounding: Sounding, overlay: Overlay | null): Omit<MaterialSpan, 'from' | 'to'> | null =>
  overlay ? { name: overlay.name, materials: materialsOf(overlay) } : ofHome(sounding)

/** Soundings within a stretch of time, each cut where what is laid changes. */
const pieces = (plan: MakePlan, timeline: Timeline, from: number, to: number): readonly MaterialSpan[] =>
  timeline.soundings.flatMap((s) => {
    const [begin, end] = [Math.max(from, s.from), Math.min(to, s.to)]
    if (begin >= end) return []
    if (plan === 'home' || plan === 'chord') {
      const own = plan === 'home' ? ofHome(s) : ofChord(s)
      return own ? [{ ...own, from: begin, to: end }] : []
    }
    const cuts = [begin, ...plan.map((l) => l.from).filter((at) => at > begin && at < end), end]
    return cuts.slice(0, -1).flatMap((at, i) => {
      const laid = plan.filter((l) => l.from <= at).at(-1)
      const own = laidOver(s, laid?.overlay ?? null)
      return own ? [{ ...own, from: at, to: cuts[i + 1] ?? end }] : []
    })
  })

const isSame = (a: MaterialSpan, b: MaterialSpan): boolean =>
  a.to === b.from &&
  a.materials.length === b.materials.length &&
  a.materials.every(
    (m, i) => m.set === b.materials[i]?.set && (m.inThirds ? m.root.pc === b.materials[i]?.root.pc : true),
  )

/** What sounds when, neighbours of one material joined. Bars without a chord are left out. */
export const spansOf = (plan: MakePlan, timeline: Timeline, from: number, to: number): readonly MaterialSpan[] => {
  const joined: MaterialSpan[] = []
  for (const piece of pieces(plan, timeline, from, to)) {
    const last = joined.at(-1)
    if (last && isSame(last, piece)) joined[joined.length - 1] = { ...last, to: piece.to }
    else joined.push(piece)
  }
  return joined
}

/** Every pitch of a material within a range, lowest first. */
export const ladderOf = ({ set }: Pick<Material, 'set'>, low: number, high: number): readonly number[] => {
  const all: number[] = []
  for (let p = Math.ceil(low); p <= high; p++) if (has(set, pitchClass(p))) all.push(p)
  return all
}
