import { lastWhere } from '../grouped.ts'
import type { Span } from './bars.ts'
import { chordsAfter, type Timeline } from './timeline.ts'

/** The chords of a span of whole bars alone, as the form that comes round and round: its first tick is 0. */
export const loopedTimeline = (timeline: Timeline, { from, to }: Span): Timeline => {
  const within = timeline.soundings.filter((s) => s.from >= from && s.to <= to)
  const soundings = within.map((s, index) => ({
    ...s,
    index,
    from: s.from - from,
    to: s.to - from,
  }))
  return { ...timeline, soundings, chordAfter: chordsAfter(soundings), length: to - from }
}

/** What begins from place to place, as it stands in a loop: what lasted into it begins with it. */
export const loopedFrom = <P extends { readonly from: number }>(
  places: readonly P[],
  { from, to }: Span,
): readonly P[] => {
  const inOrder = [...places].sort((a, b) => a.from - b.from)
  const first = inOrder[lastWhere(inOrder, (p) => p.from <= from)]
  const within = inOrder.filter((p) => p.from > from && p.from < to).map((p) => ({ ...p, from: p.from - from }))
  return first ? [{ ...first, from: 0 }, ...within] : within
}
