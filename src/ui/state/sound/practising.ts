import { atom } from 'nanostores'
import {
  feelOf,
  type Grade,
  keysOfItem,
  plainKey,
  type Round,
  roundAt,
  type Sources,
  type Stage,
  stageOf,
  swingOf,
  type Tune,
} from '../../../core/index.ts'
import { type Score, scoreOf } from '../../../sound/score.ts'
import { $address } from '../address/address.ts'
import { keepSetting } from '../kept/keep-setting.ts'
import type { ItemRow } from '../kept/row-types.ts'
import { changeRow, standingOf } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { $cards, askCards } from '../practice/figures.ts'
import { fetchItems } from '../practice/items.ts'
import { dropEntry, logRound } from '../practice/logging.ts'
import { $openChart } from '../tune/open-chart.ts'
import { silence } from './hearing.ts'
import { $playing, stopPlaying } from './playing.ts'
import { lineOverLaid } from './scoring.ts'
import { sourcesFor } from './sources.ts'

/** How one practises: whether each round is heard first, and whether a bar of count stands before each key. */
export interface PracticeManner {
  readonly hearFirst: boolean
  readonly breathe: boolean
}
export const mannerFrom = (value: unknown): PracticeManner => {
  const { hearFirst = true, breathe = false } = (value ?? {}) as Partial<PracticeManner>
  return { hearFirst: hearFirst !== false, breathe: breathe === true }
}
export const setManner = (manner: PracticeManner): void => keepSetting('practice', manner)
const mannerNow = (): PracticeManner => mannerFrom(standingOf('settings', 'practice')?.row.value)

/** A round as it is shown: in written pitch, with its tempo and what it was graded. */
export interface ShownRound {
  readonly number: number
  readonly round: Round
  readonly stage: Stage
  readonly tempo: number
  readonly grade: Grade | null
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
export const $onStage = atom<OnStage | null>(null)
/** The tick of the chart the music is at; null while it is counted in, and at rest. */
export const $practiceTick = atom<number | null>(null)

let sources: Sources = {}
/** The graded entry of each round, by its number. */
let graded: Record<number, { readonly id: string; readonly grade: Grade }> = {}
/** The tempo each laid round was laid at. */
let tempos: Record<number, number> = {}
let begun = 0
let engine: typeof import('../../../sound/rounds.ts') | null = null

/** What a round that is heard runs in. */
const RUN = { figure: '1', path: 'wave', value: '1/8' } as const

/** What sounds in a round that is heard: the item's own line, else one through what is laid. */
const heardLine = ({ line, laid, tune }: Stage) => {
  const settings = $openChart.get()?.settings
  return line ?? (settings ? lineOverLaid(laid, RUN, tune, settings) : [])
}

const asked = (of: OnStage) => ({ of: of.item.of, keys: of.keys, hearFirst: mannerNow().hearFirst })

/** The tempo of a key now: where its card stands on the ladder. */
const tempoOf = ({ item }: OnStage, key: string): number =>
  $cards.get().value?.cards.find((c) => c.itemId === item.id && c.key === key)?.tempo ?? item.tempo.from

const stageFor = (of: OnStage, round: Round, isWritten: boolean): Stage | null => {
  const openChart = $openChart.get()
  if (!openChart) return null
  const { school, weights } = openChart.settings
  const written = isWritten ? { written: openChart.instrument.written } : {}
  return stageOf(of.item.of, round.key, round.variant, sources, { school, weights, ...written })
}

/** Stages are worked out once a round: the last few are remembered. */
const shownFor = (of: OnStage, number: number, tempo: number | null = null): ShownRound | null => {
  const round = roundAt(asked(of), number)
  const stage = stageFor(of, round, true)
  if (!stage) return null
  return {
    number,
    round,
    stage,
    tempo: tempo ?? tempos[number] ?? tempoOf(of, round.key),
    grade: graded[number]?.grade ?? null,
  }
}

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
  const round = roundAt(asked(of), number)
  const stage = stageFor(of, round, false)
  if (!stage || !openChart) return null
  const tempo = tempoOf(of, round.key)
  tempos = { ...Object.fromEntries(Object.entries(tempos).slice(-8)), [number]: tempo }
  const feel = feelOf(stage.tune.chart)
  const score = scoreOf({
    ...{ chart: stage.tune.chart, timeline: stage.tune.timeline, feel, tempo, span: stage.span },
    swing: swingOf(feel, tempo, openChart.settings.swing),
    line: round.heard ? heardLine(stage) : [],
  })
  return mannerNow().breathe && round.inKey === 1 && number > 0 ? withBreath(score, stage.tune) : score
}

/** Every round of every key once, as they would be played now. */
export const scoresOnce = (): readonly Score[] => {
  const of = $onStage.get()
  const rounds = (of?.shown?.round.ofKey ?? 0) * (of?.keys.length ?? 0)
  return Array.from({ length: rounds }, (_, n) => of && scoreFor(of, n)).flatMap((score) => score ?? [])
}

/** The item that begins by itself as soon as it is on the player. */
let starting: string | null = null
export const startWhenOpen = (itemId: string): void => {
  starting = itemId
}

/** Puts an item on the player, a key first; everything it needs is fetched. */
export const openStage = async (itemId: string, key: string | null): Promise<void> => {
  const mine = ++begun
  stopRoundsNow()
  if (!standingOf('items', itemId)) await fetchItems()
  if ($cards.get().value === null) await askCards()
  if (mine !== begun) return
  const item = standingOf('items', itemId)?.row
  if (!item) return $onStage.set(null)
  const all = keysOfItem(item, Math.random, (k) => lastOf(itemId, k))
  const first = key === null ? (all[0] ?? 'C') : plainKey(key)
  const at = Math.max(0, all.indexOf(first))
  const keys = all.includes(first) ? [...all.slice(at), ...all.slice(0, at)] : [first, ...all]
  const of: OnStage = { item, keys, state: 'loading', why: '', shown: null, next: null, since: null }
  $onStage.set(of)
  const found = await sourcesFor(item.of)
  if (mine !== begun) return
  if ('missing' in found) return $onStage.set({ ...of, state: 'missing', why: found.missing })
  sources = found
  graded = {}
  tempos = {}
  const shown = shownFor(of, 0)
  if (!shown) return $onStage.set({ ...of, state: 'missing', why: 'Its chart has no chord to play.' })
  $onStage.set({ ...of, state: 'ready', shown, next: shownFor(of, 1) })
  if (starting === itemId) void startRounds()
  starting = null
}

const lastOf = (itemId: string, key: string): number =>
  Date.parse($cards.get().value?.cards.find((c) => c.itemId === itemId && c.key === key)?.last ?? '') || 0

export const leaveStage = (): void => {
  begun++
  stopRoundsNow()
  $onStage.set(null)
}

/** Another tempo or key list counts from the next round on; at rest at once. */
export const refreshStage = (): void => {
  const of = $onStage.get()
  if (of?.state === 'ready' && of.since === null && of.shown) show(of.shown.number)
}

const show = (number: number): void => {
  const of = $onStage.get()
  if (of) $onStage.set({ ...of, shown: shownFor(of, number), next: shownFor(of, number + 1) })
}

/** Begins the rounds with the one in view. */
export const startRounds = async (): Promise<void> => {
  const of = $onStage.get()
  const openChart = $openChart.get()
  if (of?.state !== 'ready' || !of.shown || !openChart) return
  if ($playing.get()) stopPlaying()
  void silence()
  const mine = ++begun
  const first = of.shown.number
  $onStage.set({ ...of, since: performance.now() })
  try {
    engine = await import('../../../sound/rounds.ts')
    if (mine !== begun) return
    const next = (n: number): Score | null => {
      const now = $onStage.get()
      return now && mine === begun ? scoreFor(now, first + n) : null
    }
    await engine.playRounds(next, openChart.settings.mix, true)
    if (mine !== begun) return $onStage.get()?.since === null ? engine.stopRounds() : undefined
    watch(mine, first)
  } catch {
    if (mine !== begun) return
    stopRoundsNow()
    say('This browser gives no sound. Everything else works without it.')
  }
}

/** Follows the music: the round in view changes with it. */
const watch = (mine: number, first: number): void => {
  const follow = (): void => {
    if (mine !== begun) return
    requestAnimationFrame(follow)
    const at = engine?.roundNow() ?? null
    const before = $practiceTick.get()
    // Whole ticks of a sixteenth: what is drawn changes no more often.
    const tick = at && Math.floor(at.tick / STEP) * STEP
    if (tick !== before) $practiceTick.set(tick)
    if (at && $onStage.get()?.shown?.number !== first + at.number) show(first + at.number)
  }
  follow()
}
const STEP = 240

const stopRoundsNow = (): void => {
  engine?.stopRounds()
  $practiceTick.set(null)
  const of = $onStage.get()
  if (of?.since != null) $onStage.set({ ...of, since: null })
}

export const stopRounds = (): void => {
  begun++
  stopRoundsNow()
}

export const isPractising = (): boolean => $onStage.get()?.since != null
export const playOrStopRounds = (): void => (isPractising() ? stopRounds() : void startRounds())

/** In the first half of a round one speaks of the one before, where that was not graded. */
const HALF = 0.5

/** The round a grade is meant for: the one that is played now, or the one before it; null where there is none. */
const gradable = (of: OnStage): number | null => {
  const { shown } = of
  if (!shown) return null
  const { from, to } = shown.stage.span
  const tick = $practiceTick.get()
  const share = tick === null ? 1 : (tick - from) / (to - from)
  const before = shown.number - 1
  const wasPlayed = before >= 0 && !roundAt(asked(of), before).heard && before in tempos
  if (wasPlayed && share < HALF && !(before in graded)) return before
  if (!shown.round.heard) return shown.number
  return wasPlayed ? before : null
}

const secondsOfRound = ({ stage, tempo }: ShownRound): number =>
  ((stage.span.to - stage.span.from) / stage.tune.timeline.beat) * (60 / tempo)

/** Grades the round just played; one that has a grade is given another. */
export const gradeRound = (grade: Grade): void => {
  const of = $onStage.get()
  if (!of || of.state !== 'ready') return
  const number = gradable(of)
  if (number === null) return say('Listen first: there is no round to grade yet.')
  const before = graded[number]
  const round = shownFor(of, number, tempos[number] ?? null)
  if (!round) return
  const id = before?.id ?? null
  if (id !== null && standingOf('log', id)) changeRow('log', id, { grade })
  const minutes = Math.round((secondsOfRound(round) / 60) * (mannerNow().hearFirst ? 2 : 1) * 100) / 100
  const { key } = round.round
  const entry =
    id !== null && standingOf('log', id)
      ? id
      : logRound({ itemId: of.item.id, key, tempo: round.tempo, grade, minutes })
  graded = { ...graded, [number]: { id: entry, grade } }
  lastGraded = { number, before }
  if (of.shown) show(of.shown.number)
}

let lastGraded: {
  readonly number: number
  readonly before: { readonly id: string; readonly grade: Grade } | undefined
} | null = null

/** Takes back what the last press graded: the first of two that mean stop. */
const ungradeLast = (): void => {
  if (lastGraded === null) return
  const { number, before } = lastGraded
  const { [number]: entry, ...rest } = graded
  lastGraded = null
  if (before && entry) {
    changeRow('log', before.id, { grade: before.grade })
    graded = { ...rest, [number]: before }
  } else if (entry) {
    dropEntry(entry.id)
    graded = rest
  }
}

/** Two presses this far apart are one gesture. */
const TWICE_MS = { least: 60, most: 450 } as const
let pressed = { by: 0, at: Number.NEGATIVE_INFINITY }

/** On the player the pedal grades while it runs, twice stops; at rest it starts, or goes back a key. */
export const pedalOnStage = (by: 1 | -1, at: number): boolean => {
  if ($address.get()?.view !== 'player') return false
  const since = at - pressed.at
  const isTwice = pressed.by === by && since > TWICE_MS.least && since < TWICE_MS.most
  pressed = { by, at }
  if (!isPractising()) {
    if (by === 1) void startRounds()
    else moveKey(-1)
    return true
  }
  if (isTwice) {
    ungradeLast()
    stopRounds()
  } else gradeRound(by === 1 ? 'clean' : 'again')
  return true
}

/** The first round of the next or previous key, at rest. */
export const moveKey = (by: 1 | -1): void => {
  const of = $onStage.get()
  if (!of?.shown) return
  const { ofKey } = of.shown.round
  const all = ofKey * of.keys.length
  const to = (Math.floor(of.shown.number / ofKey) + by) * ofKey
  const wasRunning = isPractising()
  stopRounds()
  show(((to % all) + all) % all)
  if (wasRunning) void startRounds()
}
