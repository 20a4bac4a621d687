import {
  analyseChart,
  beatOf,
  type Chain,
  type Chart,
  type Chord,
  homeOverlay,
  type Instrument,
  instrument,
  type KeptOverride,
  type Key,
  type Overlay,
  type Override,
  overrideAt,
  placeWithHome,
  readChart,
  readHarmony,
  readOver,
  readOverlay,
  readOverrides,
  reverse,
  type Place as Spotted,
  splitChart,
  spotsInChart,
  type TextError,
  transposeChart,
  transposeChord,
  transposeOverlay,
  transposeOverride,
} from '../../core/index.ts'
import type { StripSpot } from '../figures/strip-layout.ts'
import { cutAtSteps, moveChains, stepAt } from './follow.ts'
import type { Kept } from './kept.ts'
import type { Place } from './place.ts'
import type { IdeaRow } from './rows.ts'
import { type Settings, settingsFrom } from './settings.ts'

/** All the Desk shows. Charts, chords and readings are in the player's written pitch; `concert` is what is kept. */
export interface Desk {
  readonly settings: Settings
  readonly instrument: Instrument
  readonly title: string
  readonly isSketch: boolean
  readonly chart: Chart | null
  readonly chartError: TextError | null
  readonly spots: readonly StripSpot[]
  readonly chains: readonly Chain[]
  /** What the player said about single chords, in written pitch. */
  readonly said: readonly Override[]
  /** The kept route whose overlays are shown, by its name. */
  readonly following: string | null
  /** Where the player cut a chord in two. */
  readonly cuts: readonly Override[]
  readonly key: Key | null
  readonly current: StripSpot | null
  readonly overlayError: TextError | null
  readonly sounding: Chord | null
  readonly concert: { readonly overlay: Overlay; readonly chord: Chord; readonly next: Chord | null } | null
}

const ideaFor = (ideas: readonly IdeaRow[], chartId: string | null, bar: number, beat: number): IdeaRow | undefined =>
  chartId === null ? undefined : ideas.find((i) => i.chartId === chartId && i.bar === bar && i.beat === beat)

/** The spot at a place: the last one that starts no later, so that an address between chords still finds its chord. */
const spotAt = (spots: readonly StripSpot[], place: Place): StripSpot | null =>
  spots.findLast((s) => s.spot.bar < place.bar || (s.spot.bar === place.bar && s.beat <= place.beat + 1e-9)) ??
  spots[0] ??
  null

const chordFrom = (symbol: string | null): Chord | null => {
  const read = symbol === null ? null : readHarmony(symbol)
  return read?.ok && read.value.kind === 'chord' ? read.value : null
}

interface Laid {
  readonly overlay: Overlay
  readonly by: StripSpot['by']
}

/** The answer remembered for the arguments asked last: a key press moves about in a tune and does not change it. */
const latest = <A extends readonly unknown[], R>(work: (...args: A) => R): ((...args: A) => R) => {
  let last: { readonly args: A; readonly answer: R } | null = null
  return (...args) => {
    if (!last?.args.every((a, i) => a === args[i])) last = { args, answer: work(...args) }
    return last.answer
  }
}

const readOnce = latest(readChart)

/** A chart as the player reads it, with its harmony and what the player said of it; `concertSpots` are as it is kept. */
const tuneAt = latest((concert: Chart, kept: readonly KeptOverride[] | null, repeats: boolean, plays: Instrument) => {
  const chart = transposeChart(concert, plays.written)
  const overrides = readOverrides(kept).map((o) => transposeOverride(o, plays.written))
  return {
    overrides,
    chart,
    concertSpots: spotsInChart(splitChart(concert, overrides), repeats),
    analysis: analyseChart(chart, repeats, overrides),
  }
})

/** Everything the screen shows, from where one is and what is kept. Pure. */
export const deskOf = (place: Place, kept: Kept): Desk => {
  const settings = settingsFrom(kept.settings)
  const plays = instrument(settings.instrument ?? 'concert')
  const text = place.sketch ?? kept.chart?.text ?? null
  const read = text === null ? null : readOnce(text)
  const base = {
    settings,
    instrument: plays,
    title: place.sketch !== null ? 'Sketch' : (kept.chart?.title ?? ''),
    isSketch: place.sketch !== null,
    sounding: null,
    overlayError: null,
    concert: null,
    following: null,
  }
  if (!read?.ok)
    return {
      ...base,
      chart: null,
      chartError: read?.error ?? null,
      chains: [],
      said: [],
      cuts: [],
      key: null,
      spots: [],
      current: null,
    }

  const repeats = place.sketch === null
  const { overrides, concertSpots, chart, analysis } = tuneAt(
    read.value,
    repeats ? (kept.chart?.overrides ?? null) : null,
    repeats,
    plays,
  )
  const asked = place.over === null ? null : readOverlay(place.over)
  const soundsConcert = chordFrom(place.sounds)
  const sounding = soundsConcert && transposeChord(soundsConcert, plays.written)
  const chartId = place.sketch === null ? (kept.chart?.id ?? null) : null

  const route = chartId !== null && kept.route?.chartId === chartId && place.view !== 'route' ? kept.route : null
  const followed = cutAtSteps(analysis.spots, route?.steps ?? [], chart.metre)
  const bare = followed.spots.map(
    (s): StripSpot => ({ ...s, beat: beatOf(s.spot, chart.metre), reading: null, by: 'home' }),
  )
  const here = spotAt(bare, place)
  const laidOn = (s: StripSpot, home: Overlay): Laid => {
    if (s.index === here?.index && asked?.ok)
      return { overlay: transposeOverlay(asked.value, plays.written), by: 'overlay' }
    const idea = s.index === here?.index ? undefined : ideaFor(kept.ideas, chartId, s.spot.bar, s.beat)
    const step = route && stepAt(route.steps, { bar: s.spot.bar, beat: s.beat })
    const onRoute = step && readOverlay(step.overlay)
    if (onRoute?.ok) return { overlay: transposeOverlay(onRoute.value, plays.written), by: 'route' }
    const kind = idea && readOverlay(idea.overlay)
    return kind?.ok
      ? { overlay: transposeOverlay(kind.value, plays.written), by: 'idea' }
      : { overlay: home, by: 'home' }
  }
  const { school, weights } = settings
  const chosen = place.home === null ? null : readOverlay(place.home)
  const chosenHome = chosen?.ok ? transposeOverlay(chosen.value, plays.written).name : null
  const spotted = (s: StripSpot, chord: Chord, isHere: boolean): Spotted => {
    const said = overrideAt(overrides, s.spot.bar, s.beat)?.home
    const home = isHere && chosenHome !== null ? chosenHome : said
    return placeWithHome(chord, s.next, school, chord === s.spot.chord ? s.job : undefined, home)
  }
  const spots = bare.map((s): StripSpot => {
    if (s.spot.chord.kind !== 'chord') return s
    const isHere = s.index === here?.index
    const at = spotted(s, isHere && sounding !== null ? sounding : s.spot.chord, isHere)
    const { overlay, by } = laidOn(s, homeOverlay(at.home.first))
    return { ...s, reading: readOver(overlay, at, weights), by }
  })
  const current = here && (spots[here.index] ?? null)
  const concertSpot = here && cutAtSteps(concertSpots, route?.steps ?? [], chart.metre).spots[here.index]
  const back = reverse(plays.written)
  return {
    ...base,
    chart,
    chains: route ? moveChains(analysis.chains, followed.movedTo) : analysis.chains,
    following: route?.name ?? null,
    said: overrides,
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

let last: { place: Place; kept: Kept; desk: Desk } | null = null

/** The same, remembered for the latest place: four islands ask for it at each change. */
export const deskAt = (place: Place, kept: Kept): Desk => {
  if (last?.place !== place || last.kept !== kept) last = { place, kept, desk: deskOf(place, kept) }
  return last.desk
}
