import type { Note } from '../pitch/note.ts'
import { type Interval, moveRoot, writtenRoot } from '../pitch/transpose.ts'
import { transposeChart, transposeChartText } from '../transpose/chart.ts'
import { transposeChord, transposeOverlay } from '../transpose/chord.ts'
import type { Question } from './question.ts'

const rootsOf = (q: Question): readonly Note[] => {
  if (q.kind !== 'reading') return []
  const overlay = q.overlay.groups?.map((g) => g.root) ?? [q.overlay.root]
  return [...overlay, q.chord.root, ...(q.next ? [q.next.root] : [])]
}

/**
 * The interval, or the one a letter away, whichever keeps every root of the question plain: so that all of them are
 * respelled together and a B does not stand beside a D flat.
 */
const plainest = (q: Question, by: Interval): Interval => {
  const plain = (i: Interval) =>
    rootsOf(q).filter(
      (r) => writtenRoot(r, i) === moveRoot(r, i) && moveRoot(r, i).letter === (((r.letter + i.letters) % 7) + 7) % 7,
    )
  const ways = [by, { ...by, letters: by.letters - 1 }, { ...by, letters: by.letters + 1 }]
  return ways.find((way) => plain(way).length === rootsOf(q).length) ?? by
}

/** A whole question in another pitch: what a transposing player typed, as the core and the address keep it. */
export const transposeQuestion = (q: Question, interval: Interval): Question => {
  const by = interval.semitones === 0 ? interval : plainest(q, interval)
  switch (q.kind) {
    case 'reading':
      return {
        kind: q.kind,
        overlay: transposeOverlay(q.overlay, by),
        chord: transposeChord(q.chord, by),
        next: q.next && transposeChord(q.next, by),
        sounding: q.sounding && transposeChord(q.sounding, by),
      }
    case 'material':
      return { kind: q.kind, overlay: transposeOverlay(q.overlay, by) }
    case 'chord':
      return { kind: q.kind, chord: transposeChord(q.chord, by) }
    case 'pairs':
    case 'overlays':
      return { ...q, chord: transposeChord(q.chord, by), next: q.next && transposeChord(q.next, by) }
    case 'chart':
      return { kind: q.kind, chart: transposeChart(q.chart, by), text: transposeChartText(q.text, q.chart, by) }
  }
}
