import { $kept, keepIdea } from '../kept/kept.ts'
import { $openChart } from '../tune/open-chart.ts'

/** Keeps the overlay in view as an idea, with its place in the chart. */
export const keep = (): void => {
  const openChart = $openChart.get()
  if (!openChart?.concert || !openChart.current) return
  const { overlay, chord, next } = openChart.concert
  const chartId = openChart.isSketch ? null : ($kept.get()?.chart?.id ?? null)
  const spot =
    chartId === null ? { bar: null, beat: null } : { bar: openChart.current.spot.bar, beat: openChart.current.beat }
  void keepIdea({ overlay: overlay.name, chord: chord.symbol, next: next?.symbol ?? null, chartId, ...spot })
}
