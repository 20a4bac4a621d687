import { type Instrument, placeOf, readOver, reverse, transposeChord, transposeOverlay } from '../../../core/index.ts'
import type { SheetStep } from '../../figures/RouteSheet.tsx'
import type { OpenChart } from '../tune/open-chart.ts'
import type { ShownStep } from './route-model.ts'

/** The steps of a route in the pitch of another instrument. */
export const sheetSteps = (
  steps: readonly ShownStep[],
  openChart: OpenChart,
  plays: Instrument,
): readonly SheetStep[] => {
  const back = reverse(openChart.instrument.written)
  const { school, weights } = openChart.settings
  return steps.flatMap(({ slot, overlay }) => {
    if (!overlay) return []
    const { chord, next, job } = slot.place
    const moved = (c: typeof chord) => transposeChord(transposeChord(c, back), plays.written)
    const over = transposeOverlay(transposeOverlay(overlay, back), plays.written)
    const reading = readOver(over, placeOf(moved(chord), next && moved(next), school, job), weights)
    return [{ bar: slot.bar, beat: slot.beat, chord: moved(chord).symbol, reading, goesOn: slot.carries }]
  })
}
