import { atom } from 'nanostores'
import { remember } from '../page/history.ts'
import { NO_FILTERS } from './filters.ts'
import { BAND, type BandPart } from './parts/band.ts'
import { CHARTS, type ChartsPart } from './parts/charts.ts'
import { DESK, type DeskPart } from './parts/desk.ts'
import { LINE, type LinePart } from './parts/line.ts'
import { MAKE, type MakePart } from './parts/make.ts'
import { PAIRS, type PairsPart } from './parts/pairs.ts'
import { PRACTICE, type PracticePart } from './parts/practice.ts'
import { ROUTE, type RoutePart } from './parts/route.ts'
import { SETUP, type SetupPart } from './parts/setup.ts'
import { SPOT, type SpotPart } from './parts/spot.ts'
import { VIEWS, type ViewId } from './views.ts'

/** Where one is, all in concert pitch: this and nothing else is in the address. Each view has its part of it. */
export interface Address
  extends SpotPart,
    DeskPart,
    ChartsPart,
    PairsPart,
    RoutePart,
    LinePart,
    MakePart,
    BandPart,
    PracticePart,
    SetupPart {
  readonly view: ViewId
}

const PARTS = [SPOT, DESK, CHARTS, PAIRS, ROUTE, LINE, MAKE, BAND, PRACTICE, SETUP] as const

/** The first chord with nothing laid over it: where one begins in any chart. */
export const AT_START = {
  bar: 1,
  beat: 1,
  over: null,
  sounds: null,
  home: null,
  loop: null,
  tempo: null,
  feel: null,
  against: null,
  pick: null,
  filters: NO_FILTERS,
  line: null,
  note: 0,
  make: 'off',
  draft: 0,
} as const

/** The place an address names, or null where there is no such view. */
export const readAddress = (path: string, query: URLSearchParams): Address | null => {
  const view = path === '/' ? VIEWS[0] : VIEWS.find((v) => v.path === path.replace(/\/$/, ''))
  if (!view) return null
  return Object.assign({ view: view.id }, ...PARTS.map((part) => part.read(query)))
}

/** The address of a place: encoded by URLSearchParams, so that `B+` and `F#` survive. */
export const addressOf = (address: Address): string => {
  const query = new URLSearchParams()
  for (const part of PARTS) part.write(address, query)
  const path = VIEWS.find((v) => v.id === address.view)?.path ?? '/'
  return query.size > 0 ? `${path}?${query}` : path
}

/** Null until the page has started in a browser: the server renders from the place it is handed. */
export const $address = atom<Address | null>(null)

export const startAddress = (address: Address): void => {
  $address.set(address)
  window.addEventListener('popstate', () => {
    const read = readAddress(location.pathname, new URLSearchParams(location.search))
    if (read) $address.set(read)
  })
}

/** Moves: between chords the address is replaced, to another view or chart it is pushed. */
export const go = (change: Partial<Address>): void => {
  const from = $address.get()
  if (from === null) return
  const to = { ...from, ...change }
  const push = to.view !== from.view || to.chart !== from.chart || to.sketch !== from.sketch
  if (push) history.pushState(null, '', addressOf(to))
  else history.replaceState(null, '', addressOf(to))
  $address.set(to)
}

/** Does what `go` does, as something that can be taken back under a name; with others of one `join` close to it. */
export const choose = (name: string, change: Partial<Address>, join: string | null = null): void => {
  const from = $address.get()
  if (from === null) return
  go(change)
  const to = $address.get() ?? from
  if (addressOf(from) === addressOf(to)) return
  const { view, chart, sketch, bar, beat } = from
  const keys = Object.keys(change) as (keyof Address)[]
  const part = (of: Address): Partial<Address> => Object.fromEntries(keys.map((key) => [key, of[key]]))
  const [before, after] = [part(from), part(to)]
  remember({
    kind: 'choice',
    name,
    back: () => go({ view, chart, sketch, bar, beat, ...before }),
    forth: () => go({ view, chart, sketch, bar, beat, ...after }),
    join,
    at: performance.now(),
  })
}
