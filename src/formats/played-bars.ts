import { type Jumps, type LineNote, midi, type Note, playedOrder, ticks } from '../core/index.ts'
import type { LeftOut } from './assemble.ts'

/** A note where a file has it; `at` in ticks from its bar's start. `tied` goes on from the one before of its pitch. */
export interface BarNote {
  readonly at: number
  readonly for: number
  readonly pitch: number
  readonly note?: Note | undefined
  readonly tied: boolean
}

/** A bar of one voice as a file has it, its length in ticks. */
export interface VoiceBar {
  readonly opens: boolean
  readonly closes: boolean
  readonly endings: readonly number[]
  readonly jumps?: Jumps | undefined
  readonly length: number
  readonly notes: readonly BarNote[]
}

/** So many of something that a line cannot hold; nothing where there are none. */
const countedOut = (count: number, what: string, why: string): readonly LeftOut[] =>
  count === 0 ? [] : [{ what: `${count} ${what}${count === 1 ? '' : 's'}`, why }]
export const lowerLeftOut = (count: number): readonly LeftOut[] =>
  countedOut(count, 'lower note', 'of notes that begin together the highest is the line')
export const gracesLeftOut = (count: number): readonly LeftOut[] =>
  countedOut(count, 'grace note', 'they take no time of their own')

/** A tie reaches its note across a rounding of ticks. */
const NEAR = 2

/** The highest of the notes that begin together; under one that is tied on, the rest of its chord is no line either. */
const topOf = (notes: readonly BarNote[]): readonly BarNote[] => {
  const tops = new Map<number, BarNote>()
  for (const n of notes) {
    const at = Math.round(n.at)
    const top = tops.get(at)
    if (!top || n.pitch > top.pitch) tops.set(at, n)
  }
  return [...tops.values()].sort((a, b) => a.at - b.at)
}

/** The bars of a voice as they are played: repeats and endings like a chart's, ties joined; at ticks from the first bar. */
export const playedNotes = (
  bars: readonly VoiceBar[],
): { readonly notes: readonly LineNote[]; readonly leftOut: readonly LeftOut[] } => {
  const order = playedOrder(bars.map((b) => ({ ...b, spots: [], text: { at: 0, end: 0 } })))
  const played = order.ok ? order.value : bars.map((_, i) => i)
  const tops = bars.map((b) => topOf(b.notes))
  const lost = bars.reduce((sum, b, i) => sum + b.notes.length - (tops[i]?.length ?? 0), 0)
  const notes: { at: number; for: number; pitch: number; note?: Note | undefined }[] = []
  /** Where the latest note of each pitch stands. */
  const latest = new Map<number, number>()
  let from = 0
  for (const index of played) {
    const bar = bars[index] as VoiceBar
    for (const { at, for: length, pitch, note, tied } of tops[index] ?? []) {
      const before = tied ? notes[latest.get(pitch) ?? -1] : undefined
      if (before && Math.abs(before.at + before.for - (from + at)) <= NEAR) before.for = from + at + length - before.at
      else latest.set(pitch, notes.push({ at: from + at, for: length, pitch, note }) - 1)
    }
    from += bar.length
  }
  return {
    notes: notes.map(({ note, ...n }) => ({
      ...{ at: ticks(n.at), for: ticks(n.for), pitch: midi(n.pitch) },
      ...(note ? { note } : {}),
    })),
    leftOut: [...(order.ok ? [] : [{ what: 'the repeats', why: 'they do not fit together' }]), ...lowerLeftOut(lost)],
  }
}
