import { atom } from 'nanostores'
import { say } from './notices.ts'
import { $place, go } from './place.ts'
import { type Answer, type ChartRow, type IdeaRow, type RouteRow, request, type SettingRow } from './rows.ts'

/** What the server keeps, as far as this page needs it. */
export interface Kept {
  readonly charts: readonly { readonly id: string; readonly title: string }[]
  /** The open chart; null where none is open, and `missing` where the address names one that is gone. */
  readonly chart: ChartRow | null
  readonly missing: boolean
  readonly loading: boolean
  readonly ideas: readonly IdeaRow[]
  /** Whether the page began with the latest of them only. */
  readonly moreIdeas?: boolean
  /** The route that is followed. */
  readonly route: RouteRow | null
  readonly settings: readonly SettingRow[]
}

export const $kept = atom<Kept | null>(null)

export const merge = (change: Partial<Kept>): void => {
  const kept = $kept.get()
  if (kept) $kept.set({ ...kept, ...change })
}

const UNKEPT = 'crossfade-unkept-idea'
type NewIdea = Pick<IdeaRow, 'overlay' | 'chord' | 'next' | 'chartId' | 'bar' | 'beat'>

/** An idea that could not be sent waits in this browser until it is kept or dropped. */
export const $unkept = atom<NewIdea | null>(null)

const hold = (idea: NewIdea | null): void => {
  if (idea) localStorage.setItem(UNKEPT, JSON.stringify(idea))
  else localStorage.removeItem(UNKEPT)
  $unkept.set(idea)
}

export const startKept = (kept: Kept): void => {
  $kept.set(kept)
  const held = localStorage.getItem(UNKEPT)
  if (held) $unkept.set(JSON.parse(held))
  const first = $place.get()?.chart ?? null
  if (kept.loading && first !== null) void openChart(first)
  if (kept.moreIdeas) void refreshIdeas()
  let open = first
  $place.listen((place) => {
    if (place && place.chart !== null && place.chart !== open) {
      open = place.chart
      void openChart(place.chart)
    }
    if (place && place.route !== ($kept.get()?.route?.id ?? null)) void openRoute(place.route)
  })
}

const openChart = async (id: string): Promise<void> => {
  merge({ loading: true })
  const answer = await request<ChartRow>('GET', `charts/${encodeURIComponent(id)}`)
  if ($place.get()?.chart !== id) return
  if (answer.ok) merge({ chart: answer.value, missing: false, loading: false })
  else if (answer.code === 'not_found') merge({ chart: null, missing: true, loading: false })
  else {
    merge({ loading: false })
    say(`The chart could not be opened: ${answer.detail}`)
  }
}

let following: string | null = null

/** Follows a kept route, or (null) none. */
export const openRoute = async (id: string | null): Promise<void> => {
  if (following === id) return
  following = id
  if (id === null) return merge({ route: null })
  const answer = await request<RouteRow>('GET', `routes/${encodeURIComponent(id)}`)
  if (following !== id) return
  following = null
  merge({ route: answer.ok ? answer.value : null })
  if (!answer.ok) {
    say(answer.code === 'not_found' ? 'That route is gone.' : `The route could not be opened: ${answer.detail}`)
    go({ route: null })
  }
}

export const refreshIdeas = async (): Promise<void> => {
  const answer = await request<{ items: IdeaRow[] }>('GET', 'ideas?limit=200')
  if (answer.ok) merge({ ideas: answer.value.items })
}

const refreshSettings = async (): Promise<void> => {
  const answer = await request<{ items: SettingRow[] }>('GET', 'settings?limit=200')
  if (answer.ok) merge({ settings: answer.value.items })
}

export const refreshCharts = async (): Promise<void> => {
  const answer = await request<{ items: ChartRow[] }>('GET', 'charts?sort=title&limit=200')
  if (answer.ok) merge({ charts: answer.value.items.map(({ id, title }) => ({ id, title })) })
}

export const keepIdea = async (idea: NewIdea): Promise<void> => {
  const answer = await request<IdeaRow>('POST', 'ideas', idea)
  if (answer.ok) {
    hold(null)
    await refreshIdeas()
    say('Kept.', 'undo')
  } else if (answer.code === 'unreachable') {
    hold(idea)
    say('Not kept yet: the program is not answering. The idea is held in this browser.')
  } else say(`Not kept: ${answer.detail}`)
}

export const keepHeld = async (): Promise<void> => {
  const idea = $unkept.get()
  if (idea) await keepIdea(idea)
}
export const dropHeld = (): void => hold(null)

export const removeIdea = async (id: string): Promise<void> => {
  const answer = await request('DELETE', `ideas/${id}`)
  if (!answer.ok) return say(`Not removed: ${answer.detail}`)
  await refreshIdeas()
  say('Removed.', 'undo')
}

/** Keeps a setting: the row is made the first time, changed with its version after that. */
export const keepSetting = async (name: string, value: unknown): Promise<void> => {
  const row = $kept.get()?.settings.find((s) => s.name === name)
  const answer: Answer<SettingRow> = row
    ? await request('PUT', `settings/${row.id}`, { name, value, version: row.version })
    : await request('POST', 'settings', { name, value })
  await refreshSettings()
  if (!answer.ok) say(`The setting was not kept: ${answer.detail}`)
}

/** How each kind of row is fetched anew after an undo; lists that are shown only in one view say so themselves. */
const REFRESH: Record<string, () => Promise<void>> = {
  ideas: refreshIdeas,
  settings: refreshSettings,
  charts: refreshCharts,
}
export const refreshWith = (kind: string, refresh: () => Promise<void>): void => {
  REFRESH[kind] = refresh
}
const SINGULAR: Readonly<Record<string, string>> = {
  ideas: 'an idea',
  settings: 'a setting',
  charts: 'a chart',
  routes: 'a route',
  lines: 'a line',
}
const DONE: Readonly<Record<string, string>> = { create: 'making', update: 'changing', delete: 'removing' }

const bring = async (way: 'undo' | 'redo'): Promise<void> => {
  const answer = await request<{ kind: string; action: string }>('POST', way)
  if (!answer.ok) return say(answer.detail)
  const { kind, action } = answer.value
  await REFRESH[kind]?.()
  const open = $kept.get()?.chart?.id
  if (kind === 'charts' && open) await openChart(open)
  say(`${way === 'undo' ? 'Undone' : 'Done again'}: ${DONE[action]} ${SINGULAR[kind]}.`)
}
export const undoKept = (): Promise<void> => bring('undo')
export const redoKept = (): Promise<void> => bring('redo')
