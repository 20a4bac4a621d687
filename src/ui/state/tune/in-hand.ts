import {
  beatsOf,
  type KeptStep,
  layChain,
  layStep,
  readOver,
  readOverlay,
  reverse,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import type { StripSpot } from '../../figures/strip-layout.ts'
import { $address, choose, go } from '../address/address.ts'
import { $kept, $taken } from '../kept/kept.ts'
import { $fetched, fetchedKey, fetchOver } from '../kept/lists.ts'
import type { RouteRow } from '../kept/row-types.ts'
import { addRow, changeRow, flushRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { $openChart, type OpenChart } from './open-chart.ts'

const BY_HAND = 'Laid by hand'

/** A sketch is kept as a chart before anything is laid in it. Its title names no chord: it is read in every pitch. */
const keepSketch = (text: string, bars: number): string =>
  addRow('charts', { title: `Sketch, ${bars === 1 ? 'one bar' : `${bars} bars`}`, text, tags: [], overrides: null })

/** The route in hand of the open chart, in concert pitch, once it is known whether there is one. */
const routeInHand = async (chartId: string): Promise<RouteRow | null> => {
  if (!$kept.get()?.route && $fetched.get()[fetchedKey('routes', chartId)] === 'loading')
    await fetchOver('routes', chartId)
  return $kept.get()?.route ?? null
}

/** Changes what lies over a chart: its route in hand, which is made where there is none. */
const changeInHand = (chartId: string, row: RouteRow | null, steps: readonly KeptStep[], name: string): void => {
  if (row) return changeRow('routes', row.id, { steps, inHand: true })
  const version = $kept.get()?.chart?.version ?? null
  const id = addRow('routes', {
    ...{ name, note: null, chartId, chartVersion: version || null },
    ...{ steps, rules: null, inHand: true },
  })
  $taken.setKey(chartId, id)
}

/** The chart something is to be laid over: the open one, or the sketch, which is then kept; null where there is none. */
const chartToLayOver = (openChart: OpenChart): string | null => {
  const [address, kept] = [$address.get(), $kept.get()]
  if (!address || !kept) return null
  if (address.sketch === null) return kept.ownText ? null : (kept.chart?.id ?? null)
  const id = keepSketch(address.sketch, openChart.chart?.bars.length ?? 0)
  go({ chart: id, sketch: null, against: null, line: null })
  say('The sketch is kept as a chart.')
  return id
}

const placeOfSpot = (spot: StripSpot, { instrument }: OpenChart) => {
  const { chord } = spot.spot
  const back = reverse(instrument.written)
  const symbol = chord.kind === 'chord' ? transposeChord(chord, back).symbol : chord.symbol
  return { bar: spot.spot.bar, beat: spot.beat, beats: beatsOf(spot.spot), chord: symbol }
}

/** Lays an overlay (concert pitch; null: nothing) over the chord in view, in the route in hand. */
const layOver = async (overlay: string | null): Promise<void> => {
  const openChart = $openChart.get()
  const current = openChart?.current
  if (!openChart?.chart || !current?.reading) return
  const place = placeOfSpot(current, openChart)
  const { settings, instrument } = openChart
  const read = overlay === null ? null : readOverlay(overlay)
  const reading = read?.ok
    ? readOver(transposeOverlay(read.value, instrument.written), current.reading.place, settings.weights)
    : null
  const chartId = chartToLayOver(openChart)
  if (chartId === null) return say('Nothing can be laid here: open a chart first.')
  const row = await routeInHand(chartId)
  if (overlay === null && !row) return
  const figures = reading ? { fade: reading.fade, landing: reading.landing } : {}
  changeInHand(chartId, row, layStep(row?.steps ?? [], place, { overlay, ...figures }), BY_HAND)
  go({ bar: place.bar, beat: place.beat, over: null, sounds: null })
  const symbol = current.spot.chord.symbol
  const where = place.bar > 0 ? ` in bar ${place.bar}` : ''
  say(
    toGlyphs(reading ? `${reading.overlay.name} lies over ${symbol}${where}.` : `Nothing lies over ${symbol}${where}.`),
    'undo',
  )
}

/** Lays the overlay in view over its chord. */
export const layHere = (): void => {
  const overlay = $openChart.get()?.concert?.overlay.name
  if (overlay !== undefined) void layOver(overlay)
}

/** Takes away what is tried over the chord in view, so that what lies there is seen; else what lies there. */
export const layNothing = (): void => {
  const by = $openChart.get()?.current?.by
  if (by === 'overlay') choose('what was tried', { over: null })
  else if (by === 'route') void layOver(null)
  else say('Nothing lies here.')
}

/** Lays an overlay named in concert pitch over the chord in view. */
export const layNamed = (overlay: string): void => void layOver(overlay)

/** Takes a whole chain (concert pitch) into the route in hand; what lay in its bars gives way. */
export const takeChain = async (name: string, steps: readonly KeptStep[]): Promise<void> => {
  const openChart = $openChart.get()
  const chartId = openChart && chartToLayOver(openChart)
  if (!chartId) return
  const row = await routeInHand(chartId)
  changeInHand(chartId, row, layChain(row?.steps ?? [], steps), name)
}

/** Changes the steps of the route in hand. */
export const changeSteps = (change: (steps: readonly KeptStep[]) => readonly KeptStep[]): void => {
  const row = $kept.get()?.route
  if (row) changeRow('routes', row.id, { steps: change(row.steps) })
}

/** Takes another kept route of the chart in hand; the one that was is put away. */
export const takeInHand = async (row: RouteRow): Promise<void> => {
  if (row.chartId === null) return
  $taken.setKey(row.chartId, row.id)
  changeRow('routes', row.id, { inHand: true })
  say(`In hand: ${toGlyphs(row.name)}.`, 'undo')
  await flushRow('routes', row.id)
  await fetchOver('routes', row.chartId)
}

/** Puts the route in hand away: nothing lies over the chart then. It stays kept. */
export const putAway = (): void => {
  const row = $kept.get()?.route
  if (!row) return
  changeRow('routes', row.id, { inHand: false })
  say(`Put away: ${toGlyphs(row.name)}. It stays among the kept routes.`, 'undo')
}
