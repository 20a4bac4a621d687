import { homeOverlay, namedTowards, slipOverlay } from '../../../core/index.ts'
import type { StripSpot } from '../../figures/strip-layout.ts'
import { choose, go } from '../address/address.ts'
import { $openChart } from './open-chart.ts'

export const goToSpot = (spot: StripSpot): void =>
  go({ bar: spot.spot.bar, beat: spot.beat, over: null, sounds: null, home: null })

const goToIndex = (index: number): void => {
  const spots = $openChart.get()?.spots ?? []
  const spot = spots[Math.max(0, Math.min(spots.length - 1, index))]
  if (spot && spot.index !== $openChart.get()?.current?.index) goToSpot(spot)
}

export const moveChord = (by: 1 | -1): void => {
  const current = $openChart.get()?.current
  if (current) goToIndex(current.index + by)
}
export const moveBar = (by: 1 | -1): void => {
  const openChart = $openChart.get()
  const bar = (openChart?.current?.spot.bar ?? 1) + by
  const first = openChart?.spots.find((s) => s.spot.bar === bar)
  if (first) goToSpot(first)
}
export const moveToStart = (): void => goToIndex(0)
export const moveToEnd = (): void => goToIndex(Number.MAX_SAFE_INTEGER)

/** Moves the overlay by a half step; the address says so. */
export const slip = (by: 1 | -1): void => {
  const openChart = $openChart.get()
  const reading = openChart?.current?.reading
  if (!openChart?.concert || !reading) return
  const slipped = slipOverlay(openChart.concert.overlay, by, homeOverlay(reading.place.home.first).notes)
  choose('the slip', { over: namedTowards(slipped, openChart.settings.direction).name }, 'over')
}
