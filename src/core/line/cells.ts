import type { MaterialFamily } from '../material/catalogue.ts'
import type { Overlay } from '../material/overlay.ts'
import { pitchClass } from '../pitch/units.ts'
import { BITS } from './bits.ts'
import { type HeardNote, isChordTone, isParted } from './heard.ts'
import type { Figure } from './melodic.ts'
import { GROUP, pairRunsFrom } from './pairs-heard.ts'
import { atHandAt, FOREIGN, HEADERS, HOLDING, overlayOf, type Relation, relationOf, type Shape } from './shapes.ts'
import type { Timeline } from './timeline.ts'

/** A piece of a line with the shortest explanation found for it; `overlay` is null for an enclosure and a loose note. */
export interface Cell {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay | null
  readonly how: MaterialFamily | 'home' | 'chord' | 'pair' | 'enclosure' | 'loose'
  readonly bits: number
}

const LONGEST = 32
/** What the first note of a shape costs beyond going on in it. */
const WORTH = 3
const need = (size: number): number => (size >= 5 ? 4 : 3)

/** What one more note costs within a shape; a foreign one may lead into the next. */
const noteBits = (shape: Shape, before: HeardNote | null, n: HeardNote, next: HeardNote | undefined): number => {
  const at = shape.order[pitchClass(n.pitch)] ?? -1
  if (at < 0) {
    const leads = next && (shape.order[pitchClass(next.pitch)] ?? -1) >= 0
    const far = next ? Math.abs(next.pitch - n.pitch) : 0
    const step = shape.size <= 4 ? BITS.approach.intoArpeggio : 0
    if (leads && far === 1) return BITS.approach.half + step
    return leads && far === 2 ? BITS.approach.whole + step : BITS.foreign
  }
  if (!before) return Math.log2(shape.size)
  if (before.pitch === n.pitch) return BITS.repeat
  const was = shape.order[pitchClass(before.pitch)] ?? -1
  const steps = was < 0 ? 0 : Math.abs(was - at)
  const neighbours = was >= 0 && (steps === 1 || steps === shape.size - 1) && Math.abs(before.pitch - n.pitch) < 8
  return neighbours ? BITS.neighbour : Math.log2(shape.size)
}

const looseBits = (n: HeardNote, next: HeardNote | undefined): number => {
  if (isChordTone(n)) return BITS.outside.chordTone
  const far = next && isChordTone(next) ? Math.abs(next.pitch - n.pitch) : 0
  return far === 1 ? BITS.outside.half : far === 2 ? BITS.outside.whole : BITS.outside.else
}

const LOOSE = { shape: null, relation: 'foreign', pair: null, how: 'loose' } as const

interface Best {
  readonly cost: number
  readonly from: number
  readonly shape: Shape | null
  readonly relation: Relation
  readonly pair: Overlay | null
  readonly how: 'cell' | 'pair' | 'enclosure' | 'loose' | 'start'
}

const isNewChord = (before: HeardNote, n: HeardNote): boolean =>
  before.sounding?.spot.spot.chord.symbol !== n.sounding?.spot.spot.chord.symbol

/** A chord tone on a strong beat tells a change: a shape foreign to the new chord hardly goes on over it. */
const changeBits = (shape: Shape, n: HeardNote): number =>
  n.strong && isChordTone(n) && FOREIGN.has(relationOf(shape, atHandAt(n))) ? BITS.chordChangeTold : BITS.chordChange

/** What it costs to go through notes within one shape, told after each note from which it can end; `limits` by place. */
const through = (
  shape: Shape,
  notes: readonly HeardNote[],
  from: number,
  header: number,
  timeline: Timeline,
  limits: Float64Array,
  told: (to: number, cost: number) => void,
): void => {
  let cost = header
  let [seen, different, foreign] = [0, 0, 0]
  const enough = need(shape.size)
  for (let j = from; j < Math.min(notes.length, from + LONGEST); j++) {
    const [n, before] = [notes[j] as HeardNote, j > from ? (notes[j - 1] as HeardNote) : null]
    if (before && isParted(before, n, timeline)) return
    if (before && isNewChord(before, n)) cost += changeBits(shape, n)
    const bits = noteBits(shape, before, n, notes[j + 1])
    cost += bits
    const at = shape.order[pitchClass(n.pitch)] ?? -1
    if (at >= 0) {
      if (((seen >> at) & 1) === 0) different++
      seen |= 1 << at
    }
    if (at < 0 && bits === BITS.foreign && ++foreign > 1) return
    // A foreign note ends no cell, and no explanation may cost more than notes by themselves.
    if (cost > header + BITS.outside.else * (j - from + 1)) return
    if (cost > (limits[j + 1] as number) + shape.header) return
    if (at >= 0 && different >= enough) told(j, cost)
  }
}

/**
 * The shortest explanation of a line over the catalogue, by dynamic programming, in bits: cells, enclosures, and loose
 * notes between them. Source: theory page, section 9.
 */
export const cellsIn = (
  notes: readonly HeardNote[],
  figures: readonly Figure[],
  timeline: Timeline,
): readonly Cell[] => {
  const start: Best = { cost: 0, from: -1, shape: null, relation: 'foreign', pair: null, how: 'start' }
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
      pair: null,
      how: 'loose',
    })
    for (const f of figures)
      if (f.from === i && f.kind === 'enclosure') {
        const cost = here.cost + BITS.enclosure.header + BITS.enclosure.note * (f.to - f.from + 1)
        offer(f.to + 1, { cost, from: i, shape: null, relation: 'foreign', pair: null, how: 'enclosure' })
      }
    const run = runs[i]
    for (let end = run ? i + 2 * GROUP : Infinity; run && end <= run.to + 1; end += GROUP) {
      const groups = (end - i) / GROUP
      const cost = here.cost + BITS.pair.header + BITS.pair.group * groups
      offer(end, { cost, from: i, shape: null, relation: 'foreign', pair: run.pair, how: 'pair' })
    }
    const atHand = atHandAt(n)
    // Whoever stands somewhere more cheaply can still enter the same shape there.
    for (let j = i + 1; j <= Math.min(notes.length, i + LONGEST); j++)
      limits[j] = (best[j]?.cost ?? Infinity) - here.cost + WORTH
    for (const shape of HOLDING[pitchClass(n.pitch)] ?? []) {
      const relation = relationOf(shape, atHand)
      const plain = relation === 'foreign' ? shape.header : HEADERS[relation]
      const again = here.shape?.kind === shape.kind
      const header = again ? Math.min(plain, plain * BITS.again.share + BITS.again.more) : plain
      through(shape, notes, i, header, timeline, limits, (to, cost) => {
        const more = again ? BITS.again.note * (to - i + 1) : 0
        offer(to + 1, { cost: here.cost + cost + more, from: i, shape, relation, pair: null, how: 'cell' })
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
    const overlay = b.pair ?? (b.shape && overlayOf(b.shape, n))
    const how =
      b.how === 'cell' && b.shape
        ? b.relation === 'home'
          ? 'home'
          : FOREIGN.has(b.relation)
            ? ((overlay?.material?.family ?? 'mode') as MaterialFamily)
            : 'chord'
        : b.how === 'enclosure' || b.how === 'pair'
          ? b.how
          : 'loose'
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
  timeline: Timeline,
): readonly { readonly overlay: Overlay; readonly bits: number }[] => {
  const n = notes[from] as HeardNote
  const noLimits = new Float64Array(notes.length + 1).fill(Infinity)
  return (HOLDING[pitchClass(n.pitch)] ?? [])
    .flatMap((shape) => {
      const relation = relationOf(shape, atHandAt(n))
      let bits: number | null = null
      through(
        shape,
        notes,
        from,
        relation === 'foreign' ? shape.header : HEADERS[relation],
        timeline,
        noLimits,
        (end, cost) => {
          if (end === to) bits = cost
        },
      )
      return bits === null ? [] : [{ shape, bits: bits as number }]
    })
    .sort((a, b) => a.bits - b.bits)
    .slice(0, 3)
    .map(({ shape, bits }) => ({ overlay: overlayOf(shape, n), bits }))
}
