import {
  type Audit,
  beatOf,
  type LineAnalysis,
  reverse,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import { keepIdea } from '../kept/kept.ts'
import type { KeptNote, LineRow } from '../kept/row-types.ts'
import type { OpenChart } from '../tune/open-chart.ts'
import { keepLine } from './lines.ts'

type Cell = Audit['cells'][number]

/** Keeps what a piece of a line is heard as, over the chord it begins on. */
export const keepCell = (
  { overlay, from }: Cell,
  { audit }: LineAnalysis,
  { instrument }: OpenChart,
  chartId: string | null,
): void => {
  const sounding = audit.notes[from]?.sounding
  const place = sounding?.place
  if (!overlay || !place) return
  const { spot } = sounding.spot
  const back = reverse(instrument.written)
  void keepIdea({
    overlay: transposeOverlay(overlay, back).name,
    chord: transposeChord(place.chord, back).symbol,
    next: place.next && transposeChord(place.next, back).symbol,
    chartId,
    bar: chartId === null ? null : spot.bar,
    beat: chartId === null ? null : beatOf(spot),
  })
}

/** Keeps a piece of a line as a line of its own, where it lies. */
export const cutOut = ({ overlay, from, to }: Cell, row: LineRow, notes: readonly KeptNote[]): boolean =>
  keepLine(`${overlay?.name ?? 'Notes'} of ${row.name}`.slice(0, 200), notes.slice(from, to + 1), 0)
