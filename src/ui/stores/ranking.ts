import { atom } from 'nanostores'
import { homeName, readOverlay, reverse, transposeOverlay } from '../../core/index.ts'
import { type Ranking, type RankingAsk, rankAside } from '../../workers/start.ts'
import type { Desk } from './desk.ts'
import { wishFrom } from './filters.ts'
import { $place, go, type Place } from './place.ts'

/** The ranked overlays of the spot in view, in written pitch; `ranking` is the last one that came, `pending` the next. */
export interface Listed {
  readonly ranking: Ranking | null
  readonly pending: boolean
  readonly failed: boolean
}

export const $listed = atom<Listed>({ ranking: null, pending: true, failed: false })

let asked: string | null = null
let waiting: RankingAsk | null = null
let busy = false

/** One question at a time: while one is under way only the latest waits, so that fast keys never queue up. */
const askNext = async (): Promise<void> => {
  if (busy || waiting === null) return
  const ask = waiting
  waiting = null
  busy = true
  try {
    const ranking = await rankAside(ask)
    if (waiting === null) $listed.set({ ranking, pending: false, failed: false })
  } catch {
    $listed.set({ ranking: null, pending: false, failed: true })
  } finally {
    busy = false
  }
  void askNext()
}

/** Ranks for the place in view, unless that is what was asked last. */
export const listFor = (place: Place, desk: Desk): void => {
  const spot = desk.current?.reading?.place
  if (!spot) return
  const { naming, direction, weights } = desk.settings
  const home = place.home === null ? null : spot.home.first
  const ask: RankingAsk = {
    spot: {
      chord: spot.chord.symbol,
      next: spot.next?.symbol ?? null,
      job: spot.job,
      home: home && homeName(home),
      school: spot.school,
    },
    wish: wishFrom(place.filters, spot.chord),
    weights,
    naming,
    direction,
  }
  const key = JSON.stringify(ask)
  if (key === asked) return
  asked = key
  waiting = ask
  $listed.set({ ...$listed.get(), pending: true })
  void askNext()
}

export const askAgain = (place: Place, desk: Desk): void => {
  asked = null
  listFor(place, desk)
}

/** The row that was laid last, and what it is in concert pitch: a name may be spelled anew on its way there and back. */
let laid: { readonly name: string; readonly over: string } | null = null

/** Lays a named overlay (written pitch) over the chord. */
export const layWritten = (name: string, desk: Desk): void => {
  const read = readOverlay(name)
  if (!read.ok) return
  const over = transposeOverlay(read.value, reverse(desk.instrument.written)).name
  laid = { name, over }
  go({ over })
}

/** Where the overlay in view stands in the list; -1 where it is not in it. */
export const indexIn = (ranking: Ranking, desk: Desk): number => {
  const over = $place.get()?.over ?? null
  if (over !== null && laid?.over === over) return ranking.names.indexOf(laid.name)
  return over === null || !desk.current?.reading ? -1 : ranking.names.indexOf(desk.current.reading.overlay.name)
}

/** The next or previous row; from outside the list, its first. */
export const moveInList = (by: 1 | -1, desk: Desk): void => {
  const { ranking } = $listed.get()
  if (!ranking || ranking.names.length === 0) return
  const at = indexIn(ranking, desk)
  const name = ranking.names[at < 0 ? 0 : Math.max(0, Math.min(ranking.names.length - 1, at + by))]
  if (name !== undefined) layWritten(name, desk)
}
