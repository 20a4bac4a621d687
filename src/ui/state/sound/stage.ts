import { atom } from 'nanostores'
import {
  feelOf,
  type Grade,
  type Round,
  roundAt,
  type Sources,
  type Stage,
  stageOf,
  swingOf,
  type Tune,
} from '../../../core/index.ts'
import { type Score, scoreOf } from '../../../sound/score.ts'
import type { HeardAsk } from '../../../workers/start.ts'
import type { ItemRow } from '../kept/row-types.ts'
import { cardOf } from '../practice/figures.ts'
import { lastFew } from '../tune/latest.ts'
import { $openChart, type OpenChart } from '../tune/open-chart.ts'
import { heardLine, prepareHeard } from './heard-lines.ts'
import { mannerNow } from './practice-manner.ts'

/** A round as it is shown: in written pitch, with its tempo. */
export interface ShownRound {
  readonly number: number
  readonly round: Round
  readonly stage: Stage
  readonly tempo: number
}

/** The player: what is on it, the round that sounds, and where in its chart the music is; at rest the first round. */
export interface OnStage {
  readonly item: ItemRow
  readonly keys: readonly string[]
  readonly state: 'loading' | 'ready' | 'missing'
  readonly why: string
  readonly shown: ShownRound | null
  readonly next: ShownRound | null
  /** Played a while ago: when it began, milliseconds of the page's clock; null at rest. */
  readonly since: number | null
}
export interface Graded {
  readonly id: string
  readonly grade: Grade
}

export const $onStage = atom<OnStage | null>(null)
/** The tick of the chart the music is at; null while it is counted in, and at rest. */
export const $practiceTick = atom<number | null>(null)

/** What the item on the player is played from. */
const $sources = atom<Sources>({})
export const setSources = (sources: Sources): void => {
  $sources.set(sources)
  stages.clear()
  $graded.set({})
  $tempos.set({})
}

/** The graded entry of each round since an item was put on the player, by its number; and the tempo it was laid at. */
export const $graded = atom<Readonly<Record<number, Graded>>>({})
export const $tempos = atom<Readonly<Record<number, number>>>({})

export const roundsAsked = (of: OnStage) => ({ of: of.item.of, keys: of.keys, hearFirst: mannerNow().hearFirst })

/** The tempo of a key now: where its card stands on the ladder. */
const tempoOf = ({ item }: OnStage, key: string): number => cardOf(item.id, key)?.tempo ?? item.tempo.from

/** The stages of the rounds about the one that is played, by what was asked for: each is worked out once. */
const stages = lastFew<Stage | null>(8)

const stageFor = (of: OnStage, round: Round, isWritten: boolean): Stage | null => {
  const openChart = $openChart.get()
  if (!openChart) return null
  const { school, weights } = openChart.settings
  const written = isWritten ? { written: openChart.instrument.written } : {}
  const settings = { school, weights, ...written }
  const words = JSON.stringify([of.item.id, of.item.of, round.key, round.variant, settings])
  const known = stages.get(words)
  if (known !== undefined) return known
  return stages.keep(words, stageOf(of.item.of, round.key, round.variant, $sources.get(), settings))
}

/** A round as it is shown; null where its chart holds nothing. */
export const shownFor = (of: OnStage, number: number, tempo: number | null = null): ShownRound | null => {
  const round = roundAt(roundsAsked(of), number)
  const stage = stageFor(of, round, true)
  if (!stage) return null
  return {
    number,
    round,
    stage,
    tempo: tempo ?? $tempos.get()[number] ?? tempoOf(of, round.key),
  }
}

/** A round in concert pitch, as the band plays it. */
export const concertStage = (of: OnStage, round: Round): Stage | null => stageFor(of, round, false)

/** A round to be heard, in concert pitch. */
const heardAsk = ({ item }: OnStage, { key, variant }: Round, { settings }: OpenChart): HeardAsk => ({
  ...{ of: item.of, key, variant, sources: $sources.get() },
  settings: { school: settings.school, weights: settings.weights },
})

/** Has what the next rounds sound worked out aside, before they come. */
export const prepareRounds = async (from: number): Promise<void> => {
  const [of, openChart] = [$onStage.get(), $openChart.get()]
  if (!of || !openChart) return
  for (const number of Array.from({ length: AHEAD }, (_, i) => from + i)) {
    const round = roundAt(roundsAsked(of), number)
    if (round.heard) await prepareHeard(heardAsk(of, round, openChart))
  }
}
const AHEAD = 3

/** A bar of count before a key, as a pick-up within the round's own time. */
const withBreath = (score: Score, { timeline }: Tune): Score => {
  const bar = timeline.beatsInBar * timeline.beat
  const from = score.span.from - bar
  const clicks = Array.from({ length: timeline.beatsInBar }, (_, i) => ({
    ...{ part: 'rim' as const, at: from + i * timeline.beat, for: timeline.beat / 4, pitch: score.notes[0]?.pitch },
    loudness: i === 0 ? 0.9 : 0.6,
  })).flatMap((n) => (n.pitch === undefined ? [] : [{ ...n, pitch: n.pitch }]))
  return { ...score, notes: [...clicks, ...score.notes], span: { from, to: score.span.to } }
}

/** What is played of a round; its tempo is where its key's ladder stands as it is asked for. */
const scoreFor = (of: OnStage, number: number): Score | null => {
  const openChart = $openChart.get()
  const round = roundAt(roundsAsked(of), number)
  const stage = concertStage(of, round)
  if (!stage || !openChart) return null
  const tempo = tempoOf(of, round.key)
  const feel = feelOf(stage.tune.chart)
  const score = scoreOf({
    ...{ chart: stage.tune.chart, timeline: stage.tune.timeline, feel, tempo, span: stage.span },
    swing: swingOf(feel, tempo, openChart.settings.swing),
    line: round.heard ? heardLine(heardAsk(of, round, openChart), stage) : [],
  })
  return mannerNow().breathe && round.inKey === 1 && number > 0 ? withBreath(score, stage.tune) : score
}

/** As many rounds back are remembered by their tempo: those that may still be graded. */
const REMEMBERED = 8

/** The score of a round that is played now; its tempo stands from here on. */
export const layRound = (number: number): Score | null => {
  const of = $onStage.get()
  const score = of && scoreFor(of, number)
  const kept = Object.entries($tempos.get()).slice(-REMEMBERED)
  if (score) $tempos.set({ ...Object.fromEntries(kept), [number]: score.tempo })
  return score
}

/** Every round of every key once, as they would be played now. */
export const scoresOnce = (): readonly Score[] => {
  const of = $onStage.get()
  const rounds = (of?.shown?.round.ofKey ?? 0) * (of?.keys.length ?? 0)
  return Array.from({ length: rounds }, (_, n) => of && scoreFor(of, n)).flatMap((score) => score ?? [])
}

/** Another tempo or key list counts from the next round on; at rest at once. */
export const refreshStage = (): void => {
  const of = $onStage.get()
  if (of?.state === 'ready' && of.since === null && of.shown) show(of.shown.number)
}

export const show = (number: number): void => {
  const of = $onStage.get()
  if (of) $onStage.set({ ...of, shown: shownFor(of, number), next: shownFor(of, number + 1) })
}
