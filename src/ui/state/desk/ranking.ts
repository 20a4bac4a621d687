import { atom } from 'nanostores'
import { homeName, type Place, type Weights } from '../../../core/index.ts'
import { type Ranking, type RankingAsk, rankInWorker } from '../../../workers/start.ts'
import { $address, type Address } from '../address/address.ts'
import { overlayFilterFrom } from '../address/filters.ts'
import { afterFrame } from '../page/after-frame.ts'
import { laidName, layWritten } from '../tune/laying.ts'
import type { OpenChart } from '../tune/open-chart.ts'

/** Overlays as they are ranked over one place, for those weights, in written pitch. */
export interface Ranked extends Ranking {
  readonly place: Place
  readonly weights: Weights
}

/** The ranked overlays of the spot in view; `ranking` is the last one that came, `pending` the next. */
export interface Listed {
  readonly ranking: Ranked | null
  readonly pending: boolean
  readonly failed: boolean
}

export const $listed = atom<Listed>({ ranking: null, pending: true, failed: false })

let asked: string | null = null
let waiting: { readonly ask: RankingAsk; readonly place: Place } | null = null
let busy = false

/** One question at a time: while one is under way only the latest waits, so that fast keys never queue up. */
const askNext = async (): Promise<void> => {
  if (busy || waiting === null) return
  const { ask, place } = waiting
  waiting = null
  busy = true
  try {
    const ranking = await rankInWorker(ask)
    if (waiting === null)
      $listed.set({ ranking: { ...ranking, place, weights: ask.weights }, pending: false, failed: false })
  } catch {
    $listed.set({ ranking: null, pending: false, failed: true })
  } finally {
    busy = false
  }
  void askNext()
}

/** Ranks for the place in view, unless that is what was asked last. */
export const listFor = (address: Address, openChart: OpenChart): void => {
  const spot = openChart.current?.reading?.place
  if (!spot) return
  const { naming, direction, weights } = openChart.settings
  const home = address.home === null ? null : spot.home.first
  const ask: RankingAsk = {
    spot: {
      chord: spot.chord.symbol,
      next: spot.next?.symbol ?? null,
      job: spot.job,
      home: home && homeName(home),
      school: spot.school,
    },
    filter: overlayFilterFrom(address.filters, spot.chord),
    weights,
    naming,
    direction,
  }
  const key = JSON.stringify(ask)
  if (key === asked) return
  asked = key
  // What a key lays over the chord is seen before the list is put in order.
  afterFrame(() => {
    if (key !== asked) return
    waiting = { ask, place: spot }
    $listed.set({ ...$listed.get(), pending: true })
    void askNext()
  })
}

export const askAgain = (address: Address, openChart: OpenChart): void => {
  asked = null
  listFor(address, openChart)
}

/** Where the overlay in view stands in the list; -1 where it is not in it. */
export const indexIn = (ranking: Ranking, openChart: OpenChart): number => {
  const over = $address.get()?.over ?? null
  const name = laidName(over)
  if (name !== null) return ranking.names.indexOf(name)
  return over === null || !openChart.current?.reading
    ? -1
    : ranking.names.indexOf(openChart.current.reading.overlay.name)
}

/** The next or previous row; from outside the list, its first. */
export const moveInList = (by: 1 | -1, openChart: OpenChart): void => {
  const { ranking } = $listed.get()
  if (!ranking || ranking.names.length === 0) return
  const at = indexIn(ranking, openChart)
  const name = ranking.names[at < 0 ? 0 : Math.max(0, Math.min(ranking.names.length - 1, at + by))]
  if (name !== undefined) layWritten(name, openChart)
}
