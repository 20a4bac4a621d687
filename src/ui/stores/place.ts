import { atom } from 'nanostores'
import { type Feel, isFeel } from '../../core/index.ts'
import { type Filters, readFilters, writeFilters } from './filters.ts'

/** The views there are: address, label, and the letter after `g`; those without a letter are reached another way. */
export const VIEWS = [
  { id: 'desk', path: '/desk', label: 'Desk', letter: 'd' },
  { id: 'charts', path: '/charts', label: 'Charts', letter: 'c' },
  { id: 'pairs', path: '/pairs', label: 'Pairs', letter: 'p' },
  { id: 'symmetry', path: '/symmetry', label: 'Symmetry', letter: 'y' },
  { id: 'route', path: '/route', label: 'Route', letter: 'r' },
  { id: 'line', path: '/line', label: 'Line', letter: 'l' },
  { id: 'setup', path: '/set-up', label: 'Set-up', letter: 's' },
  { id: 'stand', path: '/stand', label: 'Stand', letter: null },
] as const
export type ViewId = (typeof VIEWS)[number]['id']

/** What takes its turn in the picture's place. */
export const FIGURES = [
  'slope',
  'keyboard',
  'fretboard',
  'staff',
  'table',
  'why',
  'compare',
  'elsewhere',
  'chord',
] as const
export type FigureId = (typeof FIGURES)[number]

export const PAIR_PARTS = ['map', 'derive', 'play'] as const
export type PairPart = (typeof PAIR_PARTS)[number]

/** Where one is, all in concert pitch: this and nothing else is in the address. */
export interface Place {
  readonly view: ViewId
  readonly chart: string | null
  /** An unsaved chart typed into the ask bar; the open chart stays behind it. */
  readonly sketch: string | null
  readonly bar: number
  readonly beat: number
  readonly over: string | null
  readonly sounds: string | null
  /** A home scale the player put first on this chord. */
  readonly home: string | null
  readonly figure: FigureId
  /** Overlays laid side by side, at most four. */
  readonly tray: readonly string[]
  readonly filters: Filters
  /** Of the Pairs view: the map, the derivation, or how to play the pair. */
  readonly part: PairPart
  /** The pair map's root distance. */
  readonly distance: number
  /** The scale under examination in Pairs and Symmetry, and the degree left out of it. */
  readonly scale: string | null
  readonly omit: string | null
  /** What the library is searched for, and in which order it stands. */
  readonly search: string | null
  readonly order: LibraryOrder
  /** Beside the chart's text: its harmony, what could stand there instead, or another chart laid over it. */
  readonly side: ChartSide
  /** The chart laid over the open one, and by how many semitones it is moved. */
  readonly other: string | null
  readonly shift: number
  /** What is asked of a route, in words; null for what is asked at first. */
  readonly plan: string | null
  /** Which of the ranked routes is in view, from 0. */
  readonly pick: number
  readonly panel: RoutePanel
  /** A kept route that is followed: the strip, the Desk and the stand show its overlays. */
  readonly route: string | null
  /** A kept route beside which the one in view is laid. */
  readonly against: string | null
  /** The line that is taken apart, and which of its notes is in view, from 0. */
  readonly line: string | null
  readonly note: number
  /** Of a line: whether its tablature stands under the staff, and how many steps wider or (below 0) narrower it is. */
  readonly tab: boolean
  readonly zoom: number
  /** Whether it is being written. */
  readonly write: boolean
  readonly lineSide: LineSide
  /** The bars that are played round and round; null for all of them. */
  readonly loop: Bars | null
  /** How the band plays where it is not as the chart says: beats a minute, and the feel. */
  readonly tempo: number | null
  readonly feel: Feel | null
}

/** From a bar to a bar, both included, by their numbers. */
export interface Bars {
  readonly from: number
  readonly to: number
}

/** Beside the verdict: the note in view, the line of fade, where it lies in the chart, or what it is written with. */
export const LINE_SIDES = ['note', 'fade', 'table', 'lies', 'keys', 'neck'] as const
export type LineSide = (typeof LINE_SIDES)[number]

export const MOST_ZOOM = 3
export const TEMPO = { least: 30, most: 320 } as const

export const ROUTE_PANELS = ['step', 'rules', 'recipes', 'seam', 'kept'] as const
export type RoutePanel = (typeof ROUTE_PANELS)[number]

export const LIBRARY_ORDERS = ['-updatedAt', 'title', 'createdAt'] as const
export type LibraryOrder = (typeof LIBRARY_ORDERS)[number]

export const CHART_SIDES = ['harmony', 'instead', 'over'] as const
export type ChartSide = (typeof CHART_SIDES)[number]
const MOST_SHIFT = 6

export const TRAY_HOLDS = 4

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
} as const

const wholeAtLeast1 = (text: string | null): number => {
  const n = Number(text)
  return text !== null && Number.isFinite(n) && n >= 1 ? n : 1
}

const readLoop = (text: string | null): Bars | null => {
  const [, from, to] = /^(\d{1,4})-(\d{1,4})$/.exec(text ?? '') ?? []
  return from !== undefined && Number(from) <= Number(to) ? { from: Number(from), to: Number(to) } : null
}

const readTempo = (text: string | null): number | null => {
  const n = Math.round(Number(text))
  return text !== null && n >= TEMPO.least && n <= TEMPO.most ? n : null
}

/** The place an address names, or null where there is no such view. */
export const readPlace = (path: string, query: URLSearchParams): Place | null => {
  const view = path === '/' ? VIEWS[0] : VIEWS.find((v) => v.path === path.replace(/\/$/, ''))
  if (!view) return null
  return {
    view: view.id,
    chart: query.get('chart'),
    sketch: query.get('sketch'),
    bar: query.get('bar') === '0' ? 0 : Math.floor(wholeAtLeast1(query.get('bar'))),
    beat: wholeAtLeast1(query.get('beat')),
    over: query.get('over'),
    sounds: query.get('sounds'),
    home: query.get('home'),
    figure: FIGURES.find((f) => f === query.get('figure')) ?? 'slope',
    tray: query.getAll('tray').slice(0, TRAY_HOLDS),
    filters: readFilters(query),
    part: PAIR_PARTS.find((p) => p === query.get('part')) ?? 'map',
    distance: Math.min(6, Math.floor(wholeAtLeast1(query.get('distance')))),
    scale: query.get('scale'),
    omit: query.get('omit'),
    search: query.get('search'),
    order: LIBRARY_ORDERS.find((o) => o === query.get('order')) ?? '-updatedAt',
    side: CHART_SIDES.find((s) => s === query.get('side')) ?? 'harmony',
    other: query.get('other'),
    shift: Math.round(Math.max(-MOST_SHIFT, Math.min(MOST_SHIFT, Number(query.get('shift')) || 0))),
    plan: query.get('plan'),
    pick: Math.floor(wholeAtLeast1(query.get('pick'))) - 1,
    panel: ROUTE_PANELS.find((p) => p === query.get('panel')) ?? 'step',
    route: query.get('route'),
    against: query.get('against'),
    line: query.get('line'),
    note: Math.floor(wholeAtLeast1(query.get('note'))) - 1,
    tab: query.get('tab') === 'on',
    write: query.get('write') === 'on',
    lineSide: LINE_SIDES.find((side) => side === query.get('beside')) ?? 'note',
    zoom: Math.round(Math.max(-MOST_ZOOM, Math.min(MOST_ZOOM, Number(query.get('zoom')) || 0))),
    loop: readLoop(query.get('loop')),
    tempo: readTempo(query.get('tempo')),
    feel: isFeel(query.get('feel') ?? '') ? (query.get('feel') as Feel) : null,
  }
}

/** The address of a place: encoded by URLSearchParams, so that `B+` and `F#` survive. */
export const addressOf = (place: Place): string => {
  const query = new URLSearchParams()
  for (const key of ['chart', 'sketch'] as const) if (place[key] !== null) query.set(key, place[key])
  if (place.bar !== 1 || place.beat !== 1) {
    query.set('bar', String(place.bar))
    query.set('beat', String(place.beat))
  }
  for (const key of [
    'over',
    'sounds',
    'home',
    'scale',
    'omit',
    'search',
    'other',
    'plan',
    'route',
    'against',
    'line',
    'feel',
  ] as const)
    if (place[key] !== null) query.set(key, place[key])
  if (place.figure !== 'slope') query.set('figure', place.figure)
  if (place.part !== 'map') query.set('part', place.part)
  if (place.side !== 'harmony') query.set('side', place.side)
  if (place.shift !== 0) query.set('shift', String(place.shift))
  if (place.note !== 0) query.set('note', String(place.note + 1))
  if (place.lineSide !== 'note') query.set('beside', place.lineSide)
  if (place.write) query.set('write', 'on')
  if (place.tab) query.set('tab', 'on')
  if (place.zoom !== 0) query.set('zoom', String(place.zoom))
  if (place.loop !== null) query.set('loop', `${place.loop.from}-${place.loop.to}`)
  if (place.tempo !== null) query.set('tempo', String(place.tempo))
  if (place.pick !== 0) query.set('pick', String(place.pick + 1))
  if (place.panel !== 'step') query.set('panel', place.panel)
  if (place.order !== '-updatedAt') query.set('order', place.order)
  if (place.distance !== 1) query.set('distance', String(place.distance))
  for (const name of place.tray) query.append('tray', name)
  writeFilters(place.filters, query)
  const path = VIEWS.find((v) => v.id === place.view)?.path ?? '/'
  return query.size > 0 ? `${path}?${query}` : path
}

/** Null until the page has started in a browser: the server renders from the place it is handed. */
export const $place = atom<Place | null>(null)

export const startPlace = (place: Place): void => {
  $place.set(place)
  window.addEventListener('popstate', () => {
    const read = readPlace(location.pathname, new URLSearchParams(location.search))
    if (read) $place.set(read)
  })
}

/** Moves: between chords the address is replaced, to another view or chart it is pushed. */
export const go = (change: Partial<Place>): void => {
  const from = $place.get()
  if (from === null) return
  const to = { ...from, ...change }
  const push = to.view !== from.view || to.chart !== from.chart || to.sketch !== from.sketch
  if (push) history.pushState(null, '', addressOf(to))
  else history.replaceState(null, '', addressOf(to))
  $place.set(to)
}
