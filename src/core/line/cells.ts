import { groupedBy } from '../grouped.ts'
import type { MaterialFamily } from '../material/catalogue.ts'
import type { Overlay } from '../material/overlay.ts'
import { setOf, shared } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Timeline } from '../time/timeline.ts'
import { BITS } from './bits.ts'
import { crosses, type Ground } from './cell-ground.ts'
import { type FigureCell, figureCellsIn } from './figure-cells.ts'
import { type HeardNote, isChordTone } from './heard.ts'
import type { Figure } from './melodic.ts'
import { GROUP, pairsHeard } from './pairs-heard.ts'
import { type Bounds, emptyWalk, LONGEST, shapesFrom, walkShape } from './shape-walk.ts'
import { FOREIGN, headerBits, overlayOf, RELATIONS, type Relation, SHAPES, type Shape } from './shapes.ts'

/** A piece of a line with the shortest explanation found for it; `overlay` is null for an enclosure and a loose note. */
export interface Cell {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay | null
  readonly how: MaterialFamily | 'home' | 'chord' | 'pair' | 'enclosure' | 'loose' | FigureCell['how']
  readonly bits: number
}

/** What the first note of a shape costs beyond going on in it. */
const WORTH = 3

const looseBits = (n: HeardNote, next: HeardNote | undefined): number => {
  if (isChordTone(n)) return BITS.outside.chordTone
  const far = next && isChordTone(next) ? Math.abs(next.pitch - n.pitch) : 0
  return far === 1 ? BITS.outside.half : far === 2 ? BITS.outside.whole : BITS.outside.else
}

interface Best {
  readonly cost: number
  readonly from: number
  readonly shape: Shape | null
  readonly relation: Relation
  /** What a pair or a figure known by its order is. */
  readonly overlay: Overlay | null
  readonly how: 'cell' | 'pair' | 'enclosure' | 'loose' | 'start' | FigureCell['how']
}

type How = Best['how']
const withoutShape = (cost: number, from: number, how: How, overlay: Overlay | null = null): Best => ({
  cost,
  from,
  shape: null,
  relation: 'foreign',
  overlay,
  how,
})

/** The cheapest way to each place, kept as explanations are offered; a hair's breadth cheaper is not cheaper. */
interface Ways {
  readonly best: readonly Best[]
  readonly costs: Float64Array
  readonly offer: (end: number, b: Best) => void
}
const noWays = (size: number): Ways => {
  const best: Best[] = []
  const costs = new Float64Array(size + 1).fill(Infinity)
  const offer = (end: number, b: Best): void => {
    if (b.cost >= (costs[end] as number) - 1e-9) return
    best[end] = b
    costs[end] = b.cost
  }
  return { best, costs, offer }
}

/**
 * The shortest explanation of a line over the catalogue, by dynamic programming, in bits: cells, enclosures, and loose
 * notes between them. Source: theory page, section 9.
 */
export const cellsIn = (ground: Ground, figures: readonly Figure[], timeline: Timeline): readonly Cell[] => {
  const { notes } = ground
  const known = figureCellsIn(notes, timeline)
  const { best, costs, offer } = noWays(notes.length)
  const pairs = pairsHeard(notes, timeline)
  /** The cheapest pair that ends at each place, with where it began. */
  const toPairs = noWays(notes.length)
  const enclosures = groupedBy(
    figures.filter((f) => f.kind === 'enclosure'),
    (f) => f.from,
  )
  const limits = new Float64Array(notes.length + 1)
  const bounds: Bounds = { limits, parted: ground.parted, end: notes.length }
  const walk = emptyWalk()
  const offerPair = (end: number, b: Best): void => {
    toPairs.offer(end, b)
    offer(end, b)
  }
  const offerLoose = (i: number): void =>
    offer(i + 1, withoutShape((costs[i] as number) + looseBits(notes[i] as HeardNote, notes[i + 1]), i, 'loose'))
  offer(0, withoutShape(0, -1, 'start'))
  for (const i of notes.keys()) offerLoose(i)
  for (const i of notes.keys()) {
    const here = best[i] as Best
    offerLoose(i)
    for (const f of enclosures.get(i) ?? []) {
      const cost = here.cost + BITS.enclosure.header + BITS.enclosure.note * (f.to - f.from + 1)
      offer(f.to + 1, withoutShape(cost, i, 'enclosure'))
    }
    for (const f of known.get(i) ?? [])
      if (!crosses(ground, f.from, f.to)) offer(f.to + 1, withoutShape(here.cost + f.bits, i, f.how, f.overlay))
    const [pair, before] = [pairs.begins[i] ?? null, toPairs.best[i]]
    if (pair && !crosses(ground, i, i + GROUP - 1) && !crosses(ground, i + GROUP, i + 2 * GROUP - 1)) {
      const cost = here.cost + BITS.pair.header + BITS.pair.group * 2
      offerPair(i + 2 * GROUP, withoutShape(cost, i, 'pair', pair))
    }
    if (before && pairs.goesOn[i] && !crosses(ground, i, i + GROUP - 1))
      offerPair(i + GROUP, withoutShape(before.cost + BITS.pair.group, before.from, 'pair', before.overlay))
    // Whoever stands somewhere more cheaply can still enter the same shape there.
    for (let j = i + 1; j <= Math.min(notes.length, i + LONGEST); j++)
      limits[j] = (costs[j] as number) - here.cost + WORTH
    const relations = ground.relations[i] as Uint8Array
    const kind = here.shape?.kind
    for (const shape of shapesFrom(ground, i)) {
      const related = relations[shape.set] as number
      const plain = headerBits(shape, related)
      const again = kind === shape.kind ? plain * BITS.again.share + BITS.again.more : Infinity
      const ends = walkShape(shape, ground, i, Math.min(plain, again), bounds, walk)
      for (let k = 0; k < ends; k++) {
        const to = walk.to[k] as number
        const more = again < plain ? Math.min(plain - again, BITS.again.note * (to - i + 1)) : 0
        const cost = here.cost + (walk.cost[k] as number) + more
        if (cost < (costs[to + 1] as number) - 1e-9)
          offer(to + 1, { cost, from: i, shape, relation: RELATIONS[related] as Relation, overlay: null, how: 'cell' })
      }
    }
  }
  return cellsFrom(best, ground)
}

/** What a shape goes by: of the sounding chord only its root's triad, where no more of it is played. */
const namedBy = ({ notes, leads }: Ground, { shape, relation, from }: Best, end: number): Overlay => {
  const n = notes[from] as HeardNote
  const whole = shape as Shape
  const root = n.sounding?.place?.chord.root.pc
  if (relation !== 'chord' || whole.size <= 3 || root === undefined) return overlayOf(whole, n)
  const played = setOf(
    notes.slice(from, end).flatMap((x, i) => ((leads[from + i] as number) < 0 ? [pitchClass(x.pitch)] : [])),
  )
  const triad = SHAPES.find(
    (s) => s.set === shared(played, whole.set) && s.names.some((x) => x.pc === root && x.material.family === 'triad'),
  )
  return overlayOf(triad ?? whole, n)
}

const cellsFrom = (best: readonly Best[], ground: Ground): readonly Cell[] => {
  const cells: Cell[] = []
  for (let end = ground.notes.length; end > 0; ) {
    const b = best[end] as Best
    const bits = b.cost - (best[b.from]?.cost ?? 0)
    const overlay = b.overlay ?? (b.shape && namedBy(ground, b, end))
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

/** Other explanations of the same notes, the likeliest first, each with its bits; borders of sequences aside. */
export const otherShapes = (
  ground: Ground,
  from: number,
  to: number,
): readonly { readonly overlay: Overlay; readonly bits: number }[] => {
  const found: { readonly shape: Shape; readonly bits: number }[] = []
  const walk = emptyWalk()
  const relations = ground.relations[from] as Uint8Array
  const bounds: Bounds = { limits: ground.unlimited, parted: ground.rests, end: to + 1 }
  for (const shape of shapesFrom(ground, from)) {
    const header = headerBits(shape, relations[shape.set] as number)
    const ends = walkShape(shape, ground, from, header, bounds, walk)
    for (let k = 0; k < ends; k++) if (walk.to[k] === to) found.push({ shape, bits: walk.cost[k] as number })
  }
  return found
    .sort((a, b) => a.bits - b.bits)
    .slice(0, 3)
    .map(({ shape, bits }) => ({ overlay: overlayOf(shape, ground.notes[from] as HeardNote), bits }))
}
