import { EMPTY_SET, type PcSet, pitchClass } from '../pitch/units.ts'
import type { Timeline } from '../time/timeline.ts'
import { type HeardNote, isChordTone, isParted } from './heard.ts'
import type { Figure } from './melodic.ts'
import type { Sequence } from './patterns.ts'
import { atHandAt, RELATIONS, type Relation, relationsTo } from './shapes.ts'

/** What stands about the notes of a line while cells are sought in it, by place: made once, asked very often. */
export interface Ground {
  readonly notes: readonly HeardNote[]
  readonly pc: Int8Array
  readonly pitch: Int16Array
  /** 1 after a rest: no cell goes on from the note before. */
  readonly rests: Uint8Array
  /** The same, and where a sequence begins its figure anew. */
  readonly parted: Uint8Array
  /** 1 where another chord sounds than under the note before. */
  readonly changes: Uint8Array
  /** 1 where a chord tone on a strong beat tells that change. */
  readonly tells: Uint8Array
  readonly strong: Uint8Array
  readonly onBeat: Uint8Array
  readonly inHome: Uint8Array
  /** The chord's own tones, as pitch classes; empty where none sounds. */
  readonly own: readonly PcSet[]
  /** The place of the note that this one, with others, leads to; -1 where it leads nowhere by a figure. */
  readonly leads: Int32Array
  /** For each note, by set: an index into `RELATIONS`, what a shape is to the chord that sounds there. */
  readonly relations: readonly Uint8Array[]
  /** No limit at any place, for who asks for every explanation. */
  readonly unlimited: Float64Array
}

const leadsOf = (figures: readonly Figure[], size: number): Int32Array => {
  const leads = new Int32Array(size).fill(-1)
  for (const f of figures) for (let i = f.from; i < f.to; i++) leads[i] = f.to
  return leads
}

const bordersOf = (sequences: readonly Sequence[]): ReadonlySet<number> =>
  new Set(sequences.flatMap((s) => Array.from({ length: s.times + 1 }, (_, k) => s.from + k * s.length)))

const chordAt = (n: HeardNote): string => n.sounding?.spot.spot.chord.symbol ?? ''

export const groundOf = (
  notes: readonly HeardNote[],
  figures: readonly Figure[],
  sequences: readonly Sequence[],
  timeline: Timeline,
): Ground => {
  const borders = bordersOf(sequences)
  const flags = (is: (n: HeardNote, i: number) => boolean): Uint8Array =>
    Uint8Array.from(notes, (n, i) => (is(n, i) ? 1 : 0))
  const before = (i: number): HeardNote | undefined => notes[i - 1]
  const hands = notes.map(atHandAt)
  const tables = new Map<string, Uint8Array>()
  const relations = hands.map((hand) => {
    const key = [hand.own, hand.home, ...hand.blues, 'and', ...hand.offered].join()
    const table = tables.get(key) ?? relationsTo(hand)
    tables.set(key, table)
    return table
  })
  const rests = flags((n, i) => before(i) !== undefined && isParted(before(i) as HeardNote, n, timeline))
  return {
    notes,
    pc: Int8Array.from(notes, (n) => pitchClass(n.pitch)),
    pitch: Int16Array.from(notes, (n) => n.pitch),
    rests,
    parted: rests.map((rest, i) => (borders.has(i) ? 1 : rest)),
    changes: flags((n, i) => before(i) !== undefined && chordAt(before(i) as HeardNote) !== chordAt(n)),
    tells: flags((n) => n.strong && isChordTone(n)),
    strong: flags((n) => n.strong),
    onBeat: flags((n) => n.onBeat),
    inHome: flags((n) => n.inHome),
    own: hands.map((h) => h.own ?? EMPTY_SET),
    leads: leadsOf(figures, notes.length),
    relations,
    unlimited: new Float64Array(notes.length + 1).fill(Infinity),
  }
}

export const relationAt = ({ relations }: Ground, at: number, set: PcSet): Relation =>
  RELATIONS[relations[at]?.[set] ?? 0] as Relation

/** Whether a stretch goes over a place where no cell goes on. */
export const crosses = ({ parted }: Ground, from: number, to: number): boolean => {
  for (let i = from + 1; i <= to; i++) if (parted[i]) return true
  return false
}
