import { keysOfItem, plainKey } from '../../../core/index.ts'
import type { Score } from '../../../sound/score.ts'
import { standingOf } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { $cards, askCards, cardOf } from '../practice/figures.ts'
import { fetchItems } from '../practice/items.ts'
import { $openChart } from '../tune/open-chart.ts'
import { silence } from './hearing.ts'
import { $playing, stopPlaying } from './playing.ts'
import { sourcesFor } from './sources.ts'
import {
  $graded,
  $onStage,
  $practiceTick,
  layRound,
  type OnStage,
  prepareRounds,
  setSources,
  show,
  shownFor,
} from './stage.ts'

let begun = 0
let engine: typeof import('../../../sound/rounds.ts') | null = null

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
  setSources(found)
  const shown = shownFor(of, 0)
  if (!shown) return $onStage.set({ ...of, state: 'missing', why: 'Its chart has no chord to play.' })
  $onStage.set({ ...of, state: 'ready', shown, next: shownFor(of, 1) })
  if (starting === itemId) void startRounds()
  starting = null
}

const lastOf = (itemId: string, key: string): number => Date.parse(cardOf(itemId, key)?.last ?? '') || 0

export const leaveStage = (): void => {
  begun++
  stopRoundsNow()
  $onStage.set(null)
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
  // A round that is played once more is another round.
  $graded.set({})
  $onStage.set({ ...of, since: performance.now() })
  try {
    engine = await import('../../../sound/rounds.ts')
    await prepareRounds(first)
    if (mine !== begun) return
    const next = (n: number): Score | null => (mine === begun ? layRound(first + n) : null)
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
    if (!at || $onStage.get()?.shown?.number === first + at.number) return
    show(first + at.number)
    void prepareRounds(first + at.number + 1)
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
