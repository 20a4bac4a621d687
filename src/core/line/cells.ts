import type { MaterialFamily } from '../material/catalogue.ts'
import type { Overlay } from '../material/overlay.ts'
import { shared, sizeOf } from '../pitch/pcset.ts'
import { EMPTY_SET, pitchClass } from '../pitch/units.ts'
import { BITS } from './bits.ts'
import { type FigureCell, figureCellsIn } from './figure-cells.ts'
import { type HeardNote, isChordTone, isParted } from './heard.ts'
import type { Figure } from './melodic.ts'
import { GROUP, pairRunsFrom } from './pairs-heard.ts'
import type { Sequence } from './patterns.ts'
import {
  ARPEGGIOS_HOLDING,
  atHandAt,
  FOREIGN,
  HEADERS,
  HOLDING,
  overlayOf,
  type Relation,
  relationOf,
  type Shape,
} from './shapes.ts'
import type { Timeline } from './timeline.ts'

/** A piece of a line with the shortest explanation found for it; `overlay` is null for an enclosure and a loose note. */
export interface Cell {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay | null
  readonly how: MaterialFamily | 'home' | 'chord' | 'pair' | 'enclosure' | 'loose' | FigureCell['how']
  readonly bits: number
}

const LONGEST = 32
/** What the first note of a shape costs beyond going on in it. */
const WORTH = 3
const need = (size: number): number => (size >= 5 ? 4 : 3)

/** Notes that lead by a figure: to each the place of the note it is for. */
type Leads = ReadonlyMap<number, number>

const leadsOf = (figures: readonly Figure[]): Leads =>
  new Map(figures.flatMap((f) => Array.from({ length: f.to - f.from }, (_, k) => [f.from + k, f.to] as const)))

/** What stands about the notes of a line while cells are sought in it. */
interface Ground {
  readonly notes: readonly HeardNote[]
  readonly timeline: Timeline
  readonly leads: Leads
  /** Places where a sequence begins a figure anew, or ends: no cell goes over them. */
  readonly borders: ReadonlySet<number>
}

const inShape = (shape: Shape, n: HeardNote | undefined): boolean =>
  n !== undefined && (shape.order[pitchClass(n.pitch)] ?? -1) >= 0

/** What a foreign note costs within a shape: less where it leads into the next note, or with others to one further on. */
const leadingBits = (shape: Shape, ground: Ground, at: number, side: number): number => {
  const [n, next] = [ground.notes[at] as HeardNote, ground.notes[at + 1]]
  const target = ground.leads.get(at)
  if (target !== undefined && inShape(shape, ground.notes[target])) return BITS.approach.figure
  const far = next ? next.pitch - n.pitch : 0
  if (!inShape(shape, next)) return BITS.foreign
  if (Math.abs(far) === 1 && shape.size <= 4 && far === side) return BITS.approach.again
  const step = shape.size <= 4 && side === 0 ? BITS.approach.intoArpeggio : 0
  const strong = n.strong && shape.size > 4 ? BITS.approach.strong : 0
  if (Math.abs(far) === 1) return BITS.approach.half + step + strong
  return Math.abs(far) === 2 ? BITS.approach.whole + step + strong : BITS.foreign
}

/** What one more note of a shape costs: little for a neighbour in its order. */
const memberBits = (shape: Shape, before: HeardNote | null, n: HeardNote): number => {
  if (!before) return Math.log2(shape.size)
  if (before.pitch === n.pitch) return BITS.repeat
  const at = shape.order[pitchClass(n.pitch)] ?? -1
  const was = shape.order[pitchClass(before.pitch)] ?? -1
  const steps = Math.abs(was - at)
  const neighbours = (steps === 1 || steps === shape.size - 1) && Math.abs(before.pitch - n.pitch) < 8
  return neighbours ? BITS.neighbour : Math.log2(shape.size)
}

const looseBits = (n: HeardNote, next: HeardNote | undefined): number => {
  if (isChordTone(n)) return BITS.outside.chordTone
  const far = next && isChordTone(next) ? Math.abs(next.pitch - n.pitch) : 0
  return far === 1 ? BITS.outside.half : far === 2 ? BITS.outside.whole : BITS.outside.else
}

const LOOSE = { shape: null, relation: 'foreign', overlay: null, how: 'loose' } as const

interface Best {
  readonly cost: number
  readonly from: number
  readonly shape: Shape | null
  readonly relation: Relation
  /** What a pair or a figure known by its order is. */
  readonly overlay: Overlay | null
  readonly how: 'cell' | 'pair' | 'enclosure' | 'loose' | 'start' | FigureCell['how']
}

const isNewChord = (before: HeardNote, n: HeardNote): boolean =>
  before.sounding?.spot.spot.chord.symbol !== n.sounding?.spot.spot.chord.symbol

/** A chord tone on a strong beat tells a change: a shape foreign to the new chord hardly goes on over it. */
const changeBits = (shape: Shape, n: HeardNote): number =>
  n.strong && isChordTone(n) && FOREIGN.has(relationOf(shape, atHandAt(n))) ? BITS.chordChangeTold : BITS.chordChange

/** So many of its tones a new chord must share with a cell that goes on over it. */
const SHARED_TONES = 3

const goesOnOver = (shape: Shape, n: HeardNote): boolean => {
  const { own } = atHandAt(n)
  return own === EMPTY_SET || sizeOf(shared(own, shape.set)) >= SHARED_TONES
}

/** Whether a note is what makes a rare shape: not of the home scale, and on a beat or heard before. */
const proves = (n: HeardNote, seenBefore: boolean): boolean => !n.inHome && (n.onBeat || seenBefore)

/** What it costs to go through notes within one shape, told after each note from which it can end; `limits` by place. */
const through = (
  shape: Shape,
  ground: Ground,
  from: number,
  header: number,
  limits: Float64Array,
  told: (to: number, cost: number) => void,
): void => {
  const { notes, timeline, borders } = ground
  let cost = header
  let [seen, different, foreign, side, proven] = [0, 0, 0, 0, !shape.rare]
  let last: HeardNote | null = null
  const enough = need(shape.size)
  for (let j = from; j < Math.min(notes.length, from + LONGEST); j++) {
    const [n, before] = [notes[j] as HeardNote, j > from ? (notes[j - 1] as HeardNote) : null]
    if (before && (isParted(before, n, timeline) || borders.has(j))) return
    if (before && isNewChord(before, n)) {
      if (!goesOnOver(shape, n)) return
      cost += changeBits(shape, n)
    }
    const at = shape.order[pitchClass(n.pitch)] ?? -1
    const bits = at < 0 ? leadingBits(shape, ground, j, side) : memberBits(shape, last, n)
    cost += bits
    if (at >= 0) {
      if (((seen >> at) & 1) === 0) different++
      proven ||= proves(n, ((seen >> at) & 1) === 1)
      seen |= 1 << at
      last = n
    } else {
      side = (notes[j + 1]?.pitch ?? n.pitch) - n.pitch
      if (bits === BITS.foreign && ++foreign > 1) return
    }
    // A foreign note ends no cell, and no explanation may cost more than notes by themselves.
    if (cost > header + BITS.outside.else * (j - from + 1)) return
    if (cost > (limits[j + 1] as number) + shape.header) return
    if (at >= 0 && different >= enough) told(j, cost + (proven ? 0 : BITS.unproven))
  }
}

/** The shapes a cell may begin in at a note: those that hold it; arpeggios also where it leads into their first note. */
const shapesFrom = (ground: Ground, i: number): readonly Shape[] => {
  const [n, next] = [ground.notes[i] as HeardNote, ground.notes[i + 1]]
  const holding = HOLDING[pitchClass(n.pitch)] ?? []
  const target = ground.leads.has(i) ? ground.notes[ground.leads.get(i) as number] : undefined
  const led = target ?? (next && Math.abs(next.pitch - n.pitch) === 1 ? next : undefined)
  if (!led) return holding
  const entered = (ARPEGGIOS_HOLDING[pitchClass(led.pitch)] ?? []).filter((s) => !inShape(s, n))
  return [...holding, ...entered]
}

const bordersOf = (sequences: readonly Sequence[]): ReadonlySet<number> =>
  new Set(sequences.flatMap((s) => Array.from({ length: s.times + 1 }, (_, k) => s.from + k * s.length)))

const crosses = (from: number, to: number, borders: ReadonlySet<number>): boolean => {
  for (let i = from + 1; i <= to; i++) if (borders.has(i)) return true
  return false
}

/**
 * The shortest explanation of a line over the catalogue, by dynamic programming, in bits: cells, enclosures, and loose
 * notes between them. Source: theory page, section 9.
 */
export const cellsIn = (
  notes: readonly HeardNote[],
  figures: readonly Figure[],
  sequences: readonly Sequence[],
  timeline: Timeline,
): readonly Cell[] => {
  const ground: Ground = { notes, timeline, leads: leadsOf(figures), borders: bordersOf(sequences) }
  const known = figureCellsIn(notes, timeline)
  const start: Best = { cost: 0, from: -1, shape: null, relation: 'foreign', overlay: null, how: 'start' }
  const best: (Best | undefined)[] = [start]
  const runs = pairRunsFrom(notes, timeline)
  const limits = new Float64Array(notes.length + 1)
  const offer = (end: number, b: Best): void => {
    const known = best[end]
    if (!known || b.cost < known.cost - 1e-9) best[end] = b
  }
  for (const [i, n] of notes.entries()) {
    const before = best[i] as Best
    const cost = before.cost + looseBits(n, notes[i + 1])
    best[i + 1] = { ...LOOSE, cost, from: i }
  }
  for (const [i, n] of notes.entries()) {
    const here = best[i] as Best
    offer(i + 1, {
      cost: here.cost + looseBits(n, notes[i + 1]),
      from: i,
      shape: null,
      relation: 'foreign',
      overlay: null,
      how: 'loose',
    })
    for (const f of figures)
      if (f.from === i && f.kind === 'enclosure') {
        const cost = here.cost + BITS.enclosure.header + BITS.enclosure.note * (f.to - f.from + 1)
        offer(f.to + 1, { cost, from: i, shape: null, relation: 'foreign', overlay: null, how: 'enclosure' })
      }
    for (const f of known.get(i) ?? [])
      if (!crosses(f.from, f.to, ground.borders))
        offer(f.to + 1, { ...LOOSE, cost: here.cost + f.bits, from: i, overlay: f.overlay, how: f.how })
    const run = runs[i]
    for (let end = run ? i + 2 * GROUP : Infinity; run && end <= run.to + 1; end += GROUP) {
      const groups = (end - i) / GROUP
      const cost = here.cost + BITS.pair.header + BITS.pair.group * groups
      offer(end, { cost, from: i, shape: null, relation: 'foreign', overlay: run.pair, how: 'pair' })
    }
    const atHand = atHandAt(n)
    // Whoever stands somewhere more cheaply can still enter the same shape there.
    for (let j = i + 1; j <= Math.min(notes.length, i + LONGEST); j++)
      limits[j] = (best[j]?.cost ?? Infinity) - here.cost + WORTH
    for (const shape of shapesFrom(ground, i)) {
      const relation = relationOf(shape, atHand)
      const plain = relation === 'foreign' ? shape.header : HEADERS[relation]
      const again = here.shape?.kind === shape.kind ? plain * BITS.again.share + BITS.again.more : Infinity
      through(shape, ground, i, Math.min(plain, again), limits, (to, cost) => {
        const more = again < plain ? Math.min(plain - again, BITS.again.note * (to - i + 1)) : 0
        offer(to + 1, { cost: here.cost + cost + more, from: i, shape, relation, overlay: null, how: 'cell' })
      })
    }
  }
  return cellsFrom(best, notes)
}

const cellsFrom = (best: readonly (Best | undefined)[], notes: readonly HeardNote[]): readonly Cell[] => {
  const cells: Cell[] = []
  for (let end = notes.length; end > 0; ) {
    const b = best[end] as Best
    const n = notes[b.from] as HeardNote
    const bits = b.cost - (best[b.from]?.cost ?? 0)
    const overlay = b.overlay ?? (b.shape && overlayOf(b.shape, n))
    const how =
      b.how === 'cell' && b.shape
        ? b.relation === 'home'
          ? 'home'
          : FOREIGN.has(b.relation)
            ? ((overlay?.material?.family ?? 'mode') as MaterialFamily)
            : 'chord'
        : b.how === 'start' || b.how === 'cell'
          ? 'loose'
          : b.how
    cells.push({ from: b.from, to: end - 1, overlay, how, bits })
    end = b.from
  }
  return cells.reverse()
}

/** Other explanations of the same notes, the likeliest first, each with its bits. */
export const otherShapes = (
  notes: readonly HeardNote[],
  from: number,
  to: number,
  figures: readonly Figure[],
  timeline: Timeline,
): readonly { readonly overlay: Overlay; readonly bits: number }[] => {
  const n = notes[from] as HeardNote
  const ground: Ground = { notes, timeline, leads: leadsOf(figures), borders: new Set() }
  const noLimits = new Float64Array(notes.length + 1).fill(Infinity)
  return shapesFrom(ground, from)
    .flatMap((shape) => {
      const relation = relationOf(shape, atHandAt(n))
      const header = relation === 'foreign' ? shape.header : HEADERS[relation]
      let bits: number | null = null
      through(shape, ground, from, header, noLimits, (end, cost) => {
        if (end === to) bits = cost
      })
      return bits === null ? [] : [{ shape, bits: bits as number }]
    })
    .sort((a, b) => a.bits - b.bits)
    .slice(0, 3)
    .map(({ shape, bits }) => ({ overlay: overlayOf(shape, n), bits }))
}
