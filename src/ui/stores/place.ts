import { atom } from 'nanostores'

/** The views there are: address, label, and the letter after `g`. */
export const VIEWS = [
  { id: 'desk', path: '/desk', label: 'Desk', letter: 'd' },
  { id: 'setup', path: '/set-up', label: 'Set-up', letter: 's' },
] as const
export type ViewId = (typeof VIEWS)[number]['id']

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
}

const positive = (text: string | null): number => {
  const n = Number(text)
  return text !== null && Number.isFinite(n) && n >= 1 ? n : 1
}

/** The place an address names, or null where there is no such view. */
export const readPlace = (path: string, query: URLSearchParams): Place | null => {
  const view = path === '/' ? VIEWS[0] : VIEWS.find((v) => v.path === path.replace(/\/$/, ''))
  if (!view) return null
  return {
    view: view.id,
    chart: query.get('chart'),
    sketch: query.get('sketch'),
    bar: Math.floor(positive(query.get('bar'))),
    beat: positive(query.get('beat')),
    over: query.get('over'),
    sounds: query.get('sounds'),
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
  for (const key of ['over', 'sounds'] as const) if (place[key] !== null) query.set(key, place[key])
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
