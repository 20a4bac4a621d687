import { atom } from 'nanostores'
import { merge, refreshCharts } from './kept.ts'
import { say } from './notices.ts'
import { $place, AT_START, go, type LibraryOrder } from './place.ts'
import { type Answer, type ChartRow, request } from './rows.ts'

/** The charts found so far; `next` fetches more of them, null at the end. */
export interface Library {
  readonly find: string
  readonly order: LibraryOrder
  readonly items: readonly ChartRow[]
  readonly next: string | null
  readonly state: 'loading' | 'ready' | 'failed'
}

export const $library = atom<Library | null>(null)

interface Page {
  readonly items: readonly ChartRow[]
  readonly next: string | null
}

const PAGE = 100
let latest = 0

const fetchPage = (find: string, order: LibraryOrder, after: string | null): Promise<Answer<Page>> => {
  const query = new URLSearchParams({ q: find, sort: order, limit: String(PAGE), ...(after ? { after } : {}) })
  return request<Page>('GET', `charts?${query}`)
}

/** Searches anew; the rows shown before stay until the answer has come, and only the latest search is shown. */
export const searchLibrary = async (find: string, order: LibraryOrder): Promise<void> => {
  const mine = ++latest
  const before = $library.get()
  $library.set({ find, order, items: before?.items ?? [], next: null, state: 'loading' })
  const page = await fetchPage(find, order, null)
  if (mine !== latest) return
  if (page.ok) $library.set({ find, order, ...page.value, state: 'ready' })
  else $library.set({ find, order, items: [], next: null, state: 'failed' })
}

export const moreOfLibrary = async (): Promise<void> => {
  const library = $library.get()
  if (!library?.next || library.state !== 'ready') return
  const mine = latest
  $library.set({ ...library, state: 'loading' })
  const page = await fetchPage(library.find, library.order, library.next)
  if (mine !== latest) return
  const items = page.ok ? [...library.items, ...page.value.items] : library.items
  $library.set({
    ...library,
    items,
    next: page.ok ? page.value.next : library.next,
    state: page.ok ? 'ready' : 'failed',
  })
}

const OPENED = 'crossfade-opened'
const REMEMBERED = 4

export interface Opened {
  readonly id: string
  readonly title: string
}

/** The charts opened last in this browser, the latest first. */
export const lastOpened = (): readonly Opened[] => JSON.parse(localStorage.getItem(OPENED) ?? '[]')

export const rememberOpened = ({ id, title }: Opened): void => {
  const others = lastOpened().filter((o) => o.id !== id)
  localStorage.setItem(OPENED, JSON.stringify([{ id, title }, ...others].slice(0, REMEMBERED)))
}
const forgetOpened = (id: string): void =>
  localStorage.setItem(OPENED, JSON.stringify(lastOpened().filter((o) => o.id !== id)))

export const openFromLibrary = (id: string): void => go({ view: 'charts', chart: id, sketch: null, ...AT_START })

/** Keeps a new chart and opens it. */
export const addChart = async (title: string, text: string, tags: readonly string[] = []): Promise<boolean> => {
  const made = await request<ChartRow>('POST', 'charts', { title, text, tags })
  if (!made.ok) {
    say(`The chart was not kept: ${made.detail}`)
    return false
  }
  openFromLibrary(made.value.id)
  await refreshCharts()
  return true
}

export const duplicateChart = async (row: ChartRow): Promise<void> => {
  const title = `${row.title}, again`
  const text = /^\s*title\s*=/im.test(row.text)
    ? row.text.replace(/^(\s*title\s*=\s*).*$/im, (_, head: string) => head + title)
    : `title = ${title}\n${row.text}`
  if (await addChart(title, text, row.tags)) say('A second one, open now.', 'undo')
}

export const removeChart = async (row: ChartRow): Promise<void> => {
  const gone = await request('DELETE', `charts/${row.id}`)
  if (!gone.ok) return say(`Not removed: ${gone.detail}`)
  forgetOpened(row.id)
  await refreshCharts()
  const other = $library.get()?.items[0]
  if ($place.get()?.chart === row.id || $place.get()?.chart === null) {
    if (other) go({ chart: other.id, ...AT_START })
    else {
      go({ chart: null, ...AT_START })
      merge({ chart: null, missing: false })
    }
  }
  say(`Removed: ${row.title}.`, 'undo')
}
