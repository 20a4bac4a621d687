import {
  type Analysis,
  beatOf,
  type Chain,
  type Chart,
  type Chord,
  homeOverlay,
  type Instrument,
  instrument,
  type KeptStep,
  type Key,
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
  type Place as Spotted,
  type TextError,
  transposeChord,
  transposeOverlay,
  type Weights,
} from '../../core/index.ts'
import type { StripSpot } from '../figures/strip-layout.ts'
import { cutAtSteps, moveChains, stepAt } from './follow.ts'
import type { Kept } from './kept.ts'
import type { Place } from './place.ts'
import type { IdeaRow } from './rows.ts'
import { type Settings, settingsFrom } from './settings.ts'
import { analysisOf, concertSpotsAt, latest, readOnce, tuneAt } from './tune.ts'

/** All the Desk shows. Charts, chords and readings are in the player's written pitch; `concert` is what is kept. */
export interface Desk {
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

const placeKey = (bar: number, beat: number): string => `${bar} ${beat}`

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

const NO_STEPS: readonly KeptStep[] = []

/** The spots of a tune, cut where a followed route has steps of its own, before anything is laid over them. */
const bareSpots = latest((analysis: Analysis, steps: readonly KeptStep[], { metre }: Chart) => {
  const { spots, movedTo } = cutAtSteps(analysis.spots, steps, metre)
  const bare = spots.map((s): StripSpot => ({ ...s, beat: beatOf(s.spot, metre), reading: null, by: 'home' }))
  return { bare, movedTo }
})

/** The ideas kept for a chart, by their places in it. */
const ideasByPlace = latest((ideas: readonly IdeaRow[], chartId: string | null): ReadonlyMap<string, IdeaRow> => {
  const own = chartId === null ? [] : ideas.filter((i) => i.chartId === chartId)
  return new Map([...own].reverse().map((i) => [placeKey(i.bar ?? 0, i.beat ?? 0), i]))
})

const settingsAt = latest(settingsFrom)

/** What the chords of a chart are over their own homes: read when it is looked at, and then remembered. */
const atHome = latest((spots: readonly StripSpot[], school: School, weights: Weights): readonly StripSpot[] =>
  spots.map((s): StripSpot => {
    if (s.spot.chord.kind !== 'chord') return s
    const { chord } = s.spot
    let reading: Reading | undefined
    return {
      ...s,
      get reading() {
        if (!reading) {
          const at = placeWithHome(chord, s.next, school, s.job, undefined)
          reading = readOver(homeOverlay(at.home.first), at, weights)
        }
        return reading
      },
    }
  }),
)

/** Everything the screen shows, from where one is and what is kept. Pure. */
export const deskOf = (place: Place, kept: Kept): Desk => {
  const settings = settingsAt(kept.settings)
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
    working: false,
  }
  const nothing = { chart: null, chains: [], said: [], cuts: [], key: null, spots: [], current: null }
  if (text === null || read === null) return { ...base, ...nothing, chartError: null }
  if (!read.ok) return { ...base, ...nothing, chartError: read.error }

  const repeats = place.sketch === null
  const kepts = repeats ? (kept.chart?.overrides ?? null) : null
  const tune = tuneAt(read.value, kepts, plays)
  const { overrides, chart } = tune
  const analysis = analysisOf(tune, { text, overrides: kepts, written: plays.written, repeats })
  if (!analysis) return { ...base, ...nothing, chartError: null, working: true }
  const concertSpots = concertSpotsAt(read.value, tune, repeats)
  const asked = place.over === null ? null : readOverlay(place.over)
  const soundsConcert = chordFrom(place.sounds)
  const sounding = soundsConcert && transposeChord(soundsConcert, plays.written)
  const chartId = place.sketch === null ? (kept.chart?.id ?? null) : null

  const route = chartId !== null && kept.route?.chartId === chartId && place.view !== 'route' ? kept.route : null
  const { bare, movedTo } = bareSpots(analysis, route?.steps ?? NO_STEPS, chart)
  const here = spotAt(bare, place)
  const ideas = ideasByPlace(kept.ideas, chartId)
  const { school, weights } = settings
  const chosen = place.home === null ? null : readOverlay(place.home)
  const chosenHome = chosen?.ok ? transposeOverlay(chosen.value, plays.written).name : null
  const homeSaid = (s: StripSpot): string | undefined => overrideAt(overrides, s.spot.bar, s.beat)?.home
  const spotted = (s: StripSpot, chord: Chord, isHere: boolean): Spotted => {
    const home = isHere && chosenHome !== null ? chosenHome : homeSaid(s)
    return placeWithHome(chord, s.next, school, chord === s.spot.chord ? s.job : undefined, home)
  }
  const laidOn = (s: StripSpot, home: Overlay): Laid => {
    const isHere = s.index === here?.index
    if (isHere && asked?.ok) return { overlay: transposeOverlay(asked.value, plays.written), by: 'overlay' }
    const step = route && stepAt(route.steps, { bar: s.spot.bar, beat: s.beat })
    const onRoute = step && readOverlay(step.overlay)
    if (onRoute?.ok) return { overlay: transposeOverlay(onRoute.value, plays.written), by: 'route' }
    const idea = isHere ? undefined : ideas.get(placeKey(s.spot.bar, s.beat))
    const kind = idea && readOverlay(idea.overlay)
    return kind?.ok
      ? { overlay: transposeOverlay(kind.value, plays.written), by: 'idea' }
      : { overlay: home, by: 'home' }
  }
  const isPlain = (s: StripSpot): boolean =>
    route === null && s.index !== here?.index && !ideas.has(placeKey(s.spot.bar, s.beat)) && homeSaid(s) === undefined
  const spots = atHome(bare, school, weights).map((s): StripSpot => {
    if (s.spot.chord.kind !== 'chord' || isPlain(s)) return s
    const isHere = s.index === here?.index
    const at = spotted(s, isHere && sounding !== null ? sounding : s.spot.chord, isHere)
    const { overlay, by } = laidOn(s, homeOverlay(at.home.first))
    return { ...(bare[s.index] as StripSpot), reading: readOver(overlay, at, weights), by }
  })
  const current = here && (spots[here.index] ?? null)
  const concertSpot = here && cutAtSteps(concertSpots, route?.steps ?? [], chart.metre).spots[here.index]
  const back = reverse(plays.written)
  return {
    ...base,
    chart,
    chains: route ? moveChains(analysis.chains, movedTo) : analysis.chains,
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
