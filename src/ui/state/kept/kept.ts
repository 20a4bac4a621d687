import { atom, computed, map } from 'nanostores'
import { $address } from '../address/address.ts'
import { say } from '../page/notices.ts'
import { fetchOver, fetchPage, rowsIn } from './lists.ts'
import { $opening, openingKey, openRow } from './opening.ts'
import { leavePage } from './request.ts'
import type { ChartRow, IdeaRow, ItemRow, KindName, LineRow, RouteRow, SettingRow, TakeRow } from './row-types.ts'
import {
  $left,
  $rows,
  addRow,
  adoptRows,
  changeRow,
  flushAll,
  flushRow,
  forgetRow,
  lookForLeft,
  offerLeft,
  removeRow,
  standingOf,
} from './rows.ts'
import { markTab } from './unsent.ts'

/** A kept chart in a list of them. */
export interface Titled {
  readonly id: string
  readonly title: string
}

/** What the server keeps, as far as this page needs it. */
export interface Kept {
  readonly charts: readonly Titled[]
  /** The open chart; null where none is open, and `missing` where the address names one that is gone. */
  readonly chart: ChartRow | null
  readonly missing: boolean
  readonly loading: boolean
  /** Why the chart that the address names could not be opened. */
  readonly failed: string | null
  readonly ideas: readonly IdeaRow[]
  /** The open chart's route in hand. */
  readonly route: RouteRow | null
  /** The line that the address names, where it lies over a text of its own. */
  readonly ownText: LineRow | null
  readonly settings: readonly SettingRow[]
}

const $titles = atom<readonly Titled[]>([])
/** Where the list of all ideas goes on; null at its end, undefined before it was begun. */
export const $ideasNext = atom<string | null | undefined>(undefined)

const byTitle = (a: Titled, b: Titled): number => (a.title < b.title ? -1 : a.title > b.title ? 1 : 0)

/** The charts there are: those the page began with, and those it came to know, under their titles now. */
const $charts = computed([$titles, $rows.charts, $opening], (titles, rows, opening) => {
  const known = Object.values(rows).map(({ row }) => ({ id: row.id, title: row.title }))
  const ids = new Set(known.map((k) => k.id))
  const isThere = ({ id }: Titled): boolean => opening[openingKey('charts', id)]?.state !== 'missing'
  return [...titles.filter((t) => !ids.has(t.id) && isThere(t)), ...known].sort(byTitle)
})
const sameTitles = (a: readonly Titled[], b: readonly Titled[]): boolean =>
  a.length === b.length && a.every((t, i) => t.id === b[i]?.id && t.title === b[i]?.title)
let shownTitles: readonly Titled[] = []
const $stableCharts = computed($charts, (charts) => {
  if (!sameTitles(charts, shownTitles)) shownTitles = charts
  return shownTitles
})

const $ideas = computed($rows.ideas, (rows) => rowsIn<'ideas'>(rows))
const $settings = computed($rows.settings, (rows) => Object.values(rows).map((s) => s.row))

const $chartHere = computed([$address, $rows.charts], (address, rows) => rows[address?.chart ?? '']?.row ?? null)
/** The route of a chart that was taken in hand here last, before the server said what else it put away. */
export const $taken = map<Readonly<Record<string, string>>>({})
const $routeHere = computed([$address, $rows.routes, $taken], (address, rows, taken) => {
  const id = address?.chart ?? null
  if (id === null) return null
  const inHand = Object.values(rows).flatMap(({ row }) => (row.chartId === id && row.inHand ? [row] : []))
  return inHand.find((row) => row.id === taken[id]) ?? inHand[0] ?? null
})
const $ownText = computed([$address, $rows.lines], (address, rows) => {
  const row = address?.view === 'line' ? rows[address.line ?? '']?.row : undefined
  return row && row.chartId === null && row.text !== null ? row : null
})
const $openingHere = computed([$address, $opening], (address, opening) =>
  address?.chart ? (opening[openingKey('charts', address.chart)] ?? null) : null,
)
const $started = atom(false)

const $parts = computed(
  [$stableCharts, $chartHere, $openingHere, $ideas, $routeHere, $ownText, $settings],
  (charts, chart, opening, ideas, route, ownText, settings): Kept => ({
    ...{ charts, chart, ideas, route, ownText, settings },
    missing: chart === null && opening?.state === 'missing',
    loading: chart === null && opening?.state === 'loading',
    failed: chart === null && opening?.state === 'failed' ? opening.why : null,
  }),
)
/** Null until the page has started in a browser: the server renders from what it is handed. */
export const $kept = computed([$started, $parts], (started, kept) => (started ? kept : null))

/** Begins with what the page was rendered from. */
export const startKept = (kept: Kept): void => {
  markTab()
  $titles.set(kept.charts)
  if (kept.chart) adoptRows('charts', [kept.chart])
  if (kept.route) adoptRows('routes', [kept.route])
  adoptRows('ideas', kept.ideas)
  adoptRows('settings', kept.settings)
  $started.set(true)
  void offerAll()
  setTimeout(() => void offerAll(), LATER_MS)
  const first = $address.get()
  let open = first?.chart ?? null
  if (open !== null && kept.missing) $opening.setKey(openingKey('charts', open), { state: 'missing' })
  else if (open !== null && !kept.chart) void openRow('charts', open)
  if (open !== null) fetchOverChart(open)
  void moreIdeas()
  $address.listen((address) => {
    if (address && address.chart !== open) {
      open = address.chart
      if (open !== null) void openRow('charts', open)
      if (open !== null) fetchOverChart(open)
    }
  })
  const leave = (): void => {
    leavePage(document.visibilityState === 'hidden')
    if (document.visibilityState === 'hidden') void flushAll()
  }
  document.addEventListener('visibilitychange', leave)
  for (const last of ['beforeunload', 'pagehide'])
    window.addEventListener(last, () => {
      leavePage(true)
      void flushAll()
    })
}

/** What lies over a chart that every view may show. */
const fetchOverChart = (id: string): void => {
  void fetchOver('routes', id)
  void fetchOver('ideas', id)
}

/** A tab that was closed just now may hold what it has for a moment longer. */
const LATER_MS = 2000

/** Offers what earlier visits left of rows that are open; what they still sent while they closed is looked for first. */
const offerAll = async (): Promise<void> => {
  await lookForLeft()
  for (const { kind, id, version } of $left.get()) {
    if (version === 0 || !standingOf(kind, id)) continue
    await openRow(kind, id)
    offerLeft(kind, id)
  }
}

/** Opens the chart the address names once more. */
export const openAgain = (): void => {
  const id = $address.get()?.chart
  if (id) void openRow('charts', id)
}

/** Fetches the next of all ideas, of whatever chart. */
export const moreIdeas = async (): Promise<void> => {
  const after = $ideasNext.get()
  if (after === null) return
  const answer = await fetchPage('ideas', { limit: '50', ...(after === undefined ? {} : { after }) })
  if (!answer.ok) return say(`The ideas could not be fetched: ${answer.detail}`)
  adoptRows('ideas', answer.value.items)
  $ideasNext.set(answer.value.next)
}

/** Forgets a chart, in the lists too. */
export const forgetChart = (id: string): void => {
  $titles.set($titles.get().filter((t) => t.id !== id))
  forgetRow('charts', id)
}

/** Says that a new row is kept, once it is. */
export const sayKept = async (kind: Exclude<KindName, 'settings'>, id: string): Promise<boolean> => {
  const isKept = await flushRow(kind, id)
  if (isKept) say('Kept.', 'undo')
  return isKept
}

/** Gives a row another name, and says so once that is kept. */
export const renameRow = async (
  kind: 'routes' | 'lines' | 'takes' | 'items',
  { id, name }: RouteRow | LineRow | TakeRow | ItemRow,
  to: string,
): Promise<void> => {
  if (to.trim() === '' || to.trim() === name) return
  changeRow(kind, id, { name: to.trim() })
  if (await flushRow(kind, id)) say('Renamed.', 'undo')
}

type NewIdea = Pick<IdeaRow, 'overlay' | 'chord' | 'next' | 'chartId' | 'bar' | 'beat'>

export const keepIdea = (idea: NewIdea): Promise<boolean> =>
  sayKept('ideas', addRow('ideas', { note: null, tags: [], ...idea }))

export const removeIdea = async (id: string): Promise<void> => {
  const answer = await removeRow('ideas', id)
  if (answer.ok) say('Removed.', 'undo')
  else say(`Not removed: ${answer.detail}`)
}
