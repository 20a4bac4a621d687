import {
  type Instrument,
  metreName,
  newMetres,
  type Overlay,
  placeOf,
  type Reading,
  readOver,
  reverse,
  sameAt,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import type { SheetBar, SheetChord } from '../../figures/ChartSheet.tsx'
import type { StripSpot } from '../../figures/strip-layout.ts'
import type { Bars } from '../address/parts/band.ts'
import type { OpenChart } from '../tune/open-chart.ts'
import type { ShownStep } from './route-model.ts'

interface Laid {
  readonly overlay: Overlay
  readonly goesOn: boolean
}

/** What lies over a spot: in a chain that is in view, else in the route in hand or what is tried there. */
const laidOn = (spot: StripSpot, before: StripSpot | undefined, steps: readonly ShownStep[] | null): Laid | null => {
  if (steps) {
    const step = steps.find((s) => sameAt(s.slot, { bar: spot.spot.bar, beat: spot.beat }))
    return step?.overlay ? { overlay: step.overlay, goesOn: step.slot.carries } : null
  }
  if (spot.by === 'home' || !spot.reading) return null
  const { overlay } = spot.reading
  const sameChord = before?.spot.chord.symbol === spot.spot.chord.symbol
  const goesOn = sameChord && before?.by !== 'home' && before?.reading?.overlay.name === overlay.name
  return { overlay, goesOn }
}

/** The chart with what lies over it in the pitch of another instrument, bar by bar; all bars, or those of the loop. */
export const sheetBars = (
  openChart: OpenChart,
  plays: Instrument,
  steps: readonly ShownStep[] | null,
  loop: Bars | null,
): readonly SheetBar[] => {
  const { chart, settings, spots, instrument } = openChart
  if (!chart) return []
  const back = reverse(instrument.written)
  const metres = newMetres(chart)
  const moved = (c: Parameters<typeof transposeChord>[0]) => transposeChord(transposeChord(c, back), plays.written)
  const readingOf = (s: StripSpot, overlay: Overlay): Reading | null => {
    const { chord } = s.spot
    if (chord.kind !== 'chord') return null
    const place = placeOf(moved(chord), s.next && moved(s.next), settings.school, s.job)
    return readOver(transposeOverlay(transposeOverlay(overlay, back), plays.written), place, settings.weights)
  }
  return chart.bars
    .filter((b) => loop === null || (b.number >= loop.from && b.number <= loop.to))
    .map((b, i) => ({
      number: b.number,
      section: b.section,
      metre: i === 0 || metres.has(b.number) ? metreName(b.metre) : null,
      chords: spots
        .filter((s) => s.spot.bar === b.number)
        .map((s): SheetChord => {
          const { chord } = s.spot
          const laid = laidOn(s, spots[s.index - 1], steps)
          return {
            symbol: chord.kind === 'chord' ? moved(chord).symbol : chord.symbol,
            reading: laid && readingOf(s, laid.overlay),
            goesOn: laid?.goesOn ?? false,
          }
        }),
    }))
}
