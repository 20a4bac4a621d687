import { computed } from 'nanostores'
import {
  type Analysis,
  beatOf,
  type Chain,
  type Chart,
  type Chord,
  homeOverlay,
  type Instrument,
  type Interval,
  instrument,
  type KeptStep,
  type Key,
  laidAt,
  type Overlay,
  type Override,
  overrideAt,
  placeWithHome,
  type Reading,
  readHarmony,
  readOver,
  readOverlay,
  reverse,
  type School,
  type TextError,
  transposeChord,
  transposeOverlay,
  type Weights,
} from '../../../core/index.ts'
import type { StripSpot } from '../../figures/strip-layout.ts'
import { $address, type Address } from '../address/address.ts'
import { $kept, type Kept } from '../kept/kept.ts'
import { type Settings, settingsFrom } from '../kept/settings.ts'
import { $analysed } from './analysing.ts'
import { textHere } from './concert.ts'
import { cutAtSteps, moveChains } from './follow.ts'
import { latest } from './latest.ts'
import { analysisOf, concertSpotsAt, readOnce, tuneAt } from './tune.ts'

/** All the Desk shows. Charts, chords and readings are in the player's written pitch; `concert` is what is kept. */
export interface OpenChart {
  readonly settings: Settings
  readonly instrument: Instrument
  readonly title: string
  readonly isSketch: boolean
  readonly chart: Chart | null
  readonly chartError: TextError | null
  /** Whether the chart is so long that its harmony is worked out aside, and not there yet. */
  readonly working: boolean
  readonly spots: readonly StripSpot[]
  readonly chains: readonly Chain[]
  /** What the player said about single chords, in written pitch. */
  readonly overrides: readonly Override[]
  /** The route in hand, by its name. */
  readonly inHand: string | null
  /** Where the player cut a chord in two. */
  readonly cuts: readonly Override[]
  readonly key: Key | null
  readonly current: StripSpot | null
  readonly overlayError: TextError | null
  readonly sounding: Chord | null
  readonly concert: { readonly overlay: Overlay; readonly chord: Chord; readonly next: Chord | null } | null
}

/** The spot at a place: the last one that starts no later, so that an address between chords still finds its chord. */
const spotAt = (spots: readonly StripSpot[], address: Address): StripSpot | null =>
  spots.findLast((s) => s.spot.bar < address.bar || (s.spot.bar === address.bar && s.beat <= address.beat + 1e-9)) ??
  spots[0] ??
  null

const chordFrom = (symbol: string | null): Chord | null => {
  const read = symbol === null ? null : readHarmony(symbol)
  return read?.ok && read.value.kind === 'chord' ? read.value : null
}

const NO_STEPS: readonly KeptStep[] = []

/** The spots of a tune, cut where a followed route has steps of its own, before anything is laid over them. */
const bareSpots = latest((analysis: Analysis, steps: readonly KeptStep[]) => {
  const { spots, movedTo } = cutAtSteps(analysis.spots, steps)
  const bare = spots.map((s): StripSpot => ({ ...s, beat: beatOf(s.spot), reading: null, by: 'home' }))
  return { bare, movedTo }
})

const settingsAt = latest(settingsFrom)

/**
 * The chords of a chart with what lies over each in the route in hand, else its own home: read when it is looked at, and
 * then remembered.
 */
const laidSpots = latest(
  (
    spots: readonly StripSpot[],
    steps: readonly KeptStep[],
    overrides: readonly Override[],
    school: School,
    weights: Weights,
    written: Interval,
  ): readonly StripSpot[] =>
    spots.map((s): StripSpot => {
      const { chord, bar } = s.spot
      if (chord.kind !== 'chord') return s
      const name = steps.length === 0 ? null : laidAt(steps, { bar, beat: s.beat })
      const step = name === null ? null : readOverlay(name)
      let reading: Reading | undefined
      return {
        ...s,
        by: step?.ok ? 'route' : 'home',
        get reading() {
          if (!reading) {
            const home = overrideAt(overrides, bar, s.beat)?.home
            const at = placeWithHome(chord, s.next, school, s.job, home)
            reading = readOver(
              step?.ok ? transposeOverlay(step.value, written) : homeOverlay(at.home.first),
              at,
              weights,
            )
          }
          return reading
        },
      }
    }),
)

/** Everything the screen shows, from where one is and what is kept. Pure. */
export const openChartOf = (address: Address, kept: Kept): OpenChart => {
  const settings = settingsAt(kept.settings)
  const plays = instrument(settings.instrument ?? 'concert')
  const { text, overrides: kepts, isChart } = textHere(address, kept)
  const read = text === null ? null : readOnce(text)
  const base = {
    settings,
    instrument: plays,
    title: address.sketch !== null ? 'Sketch' : (kept.ownText?.name ?? kept.chart?.title ?? ''),
    isSketch: address.sketch !== null,
    sounding: null,
    overlayError: null,
    concert: null,
    inHand: null,
    working: false,
  }
  const nothing = { chart: null, chains: [], overrides: [], cuts: [], key: null, spots: [], current: null }
  if (text === null || read === null) return { ...base, ...nothing, chartError: null }
  if (!read.ok) return { ...base, ...nothing, chartError: read.error }

  const repeats = address.sketch === null
  const tune = tuneAt(read.value, kepts, plays)
  const { overrides, chart } = tune
  const analysis = analysisOf(tune, { text, overrides: kepts, written: plays.written, repeats })
  if (!analysis) return { ...base, ...nothing, chartError: null, working: true }
  const concertSpots = concertSpotsAt(read.value, tune, repeats)
  const asked = address.over === null ? null : readOverlay(address.over)
  const soundsConcert = chordFrom(address.sounds)
  const sounding = soundsConcert && transposeChord(soundsConcert, plays.written)
  const chartId = isChart ? (kept.chart?.id ?? null) : null

  const route = chartId !== null && kept.route?.chartId === chartId ? kept.route : null
  // The Route view has a band of its own steps.
  const steps = address.view === 'route' ? NO_STEPS : (route?.steps ?? NO_STEPS)
  const { bare, movedTo } = bareSpots(analysis, steps)
  const here = spotAt(bare, address)
  const { school, weights } = settings
  const laid = laidSpots(bare, steps, overrides, school, weights, plays.written)
  const chosen = address.home === null ? null : readOverlay(address.home)
  const chosenHome = chosen?.ok ? transposeOverlay(chosen.value, plays.written).name : null
  const inView = here && laid[here.index]
  const readAnew = (s: StripSpot, chord: Chord): StripSpot => {
    const home = chosenHome ?? overrideAt(overrides, s.spot.bar, s.beat)?.home
    const at = placeWithHome(chord, s.next, school, chord === s.spot.chord ? s.job : undefined, home)
    const lies = s.by === 'home' ? homeOverlay(at.home.first) : s.reading?.overlay
    const overlay = asked?.ok ? transposeOverlay(asked.value, plays.written) : (lies ?? homeOverlay(at.home.first))
    return { ...s, reading: readOver(overlay, at, weights), by: asked?.ok ? 'overlay' : s.by }
  }
  const asks = asked?.ok || sounding !== null || chosenHome !== null
  const anew = inView?.spot.chord.kind === 'chord' && asks ? readAnew(inView, sounding ?? inView.spot.chord) : null
  const spots = anew ? laid.map((s) => (s.index === anew.index ? anew : s)) : laid
  const current = here && (spots[here.index] ?? null)
  const concertSpot = here && cutAtSteps(concertSpots, steps).spots[here.index]
  const back = reverse(plays.written)
  return {
    ...base,
    chart,
    chains: steps.length > 0 ? moveChains(analysis.chains, movedTo) : analysis.chains,
    inHand: route?.name ?? null,
    overrides,
    cuts: overrides.filter((o) => o.split !== undefined),
    key: analysis.key,
    chartError: null,
    spots,
    current,
    overlayError: asked && !asked.ok ? asked.error : null,
    sounding,
    concert:
      current?.reading && concertSpot?.spot.chord.kind === 'chord'
        ? {
            overlay: asked?.ok ? asked.value : transposeOverlay(current.reading.overlay, back),
            chord: soundsConcert ?? concertSpot.spot.chord,
            next: concertSpot.next,
          }
        : null,
  }
}

let last: { address: Address; kept: Kept; openChart: OpenChart } | null = null

/** The same, remembered for the latest: a page is rendered from four islands that ask for it. */
export const openChartAt = (address: Address, kept: Kept): OpenChart => {
  if (last?.address !== address || last.kept !== kept) last = { address, kept, openChart: openChartOf(address, kept) }
  return last.openChart
}

/** The open chart as it stands now; null until the page has started in a browser. */
export const $openChart = computed([$address, $kept, $analysed], (address, kept) =>
  address && kept ? openChartOf(address, kept) : null,
)
