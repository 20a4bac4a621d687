import { atom } from 'nanostores'
import { $address, AT_START, go } from '../address/address.ts'
import type { LibraryOrder } from '../address/parts/charts.ts'
import { forgetChart } from '../kept/kept.ts'
import { fetchPage, type Page } from '../kept/lists.ts'
import type { Answer } from '../kept/request.ts'
import type { ChartRow } from '../kept/row-types.ts'
import { addRow, flushRow, removeRow } from '../kept/rows.ts'
import { editorWanted } from '../page/focus.ts'
import { say } from '../page/notices.ts'
import { forgetOpened } from './recent.ts'

/** The charts found so far; `next` fetches more of them, null at the end. */
export interface Library {
  readonly find: string
  readonly order: LibraryOrder
  readonly items: readonly ChartRow[]
  readonly next: string | null
  readonly state: 'loading' | 'ready' | 'failed'
}

export const $library = atom<Library | null>(null)

const PAGE = 100
let latest = 0

const fetchFound = (find: string, order: LibraryOrder, after: string | null): Promise<Answer<Page<ChartRow>>> =>
  fetchPage('charts', { q: find, sort: order, limit: String(PAGE), ...(after ? { after } : {}) })

/** Searches anew; the rows shown before stay until the answer has come, and only the latest search is shown. */
export const searchLibrary = async (find: string, order: LibraryOrder): Promise<void> => {
  const mine = ++latest
  const before = $library.get()
  $library.set({ find, order, items: before?.items ?? [], next: null, state: 'loading' })
  const page = await fetchFound(find, order, null)
  if (mine !== latest) return
  if (page.ok) $library.set({ find, order, ...page.value, state: 'ready' })
  else $library.set({ find, order, items: [], next: null, state: 'failed' })
}

export const moreOfLibrary = async (): Promise<void> => {
  const library = $library.get()
  if (!library?.next || library.state !== 'ready') return
  const mine = latest
  $library.set({ ...library, state: 'loading' })
  const page = await fetchFound(library.find, library.order, library.next)
  if (mine !== latest) return
  const items = page.ok ? [...library.items, ...page.value.items] : library.items
  $library.set({
    ...library,
    items,
    next: page.ok ? page.value.next : library.next,
    state: page.ok ? 'ready' : 'failed',
  })
}

/** Opens a chart of the library; the view stays where it is on Charts. */
export const openFromLibrary = (id: string): void => go({ view: 'charts', chart: id, sketch: null, ...AT_START })

/** Makes a new chart and opens it; resolves with whether it is kept. */
export const addChart = (title: string, text: string, tags: readonly string[] = []): Promise<boolean> => {
  const id = addRow('charts', { title, text, tags, overrides: null })
  editorWanted.now = true
  openFromLibrary(id)
  return flushRow('charts', id)
}

export const duplicateChart = async (row: ChartRow): Promise<void> => {
  const title = `${row.title}, again`
  const text = /^\s*title\s*=/im.test(row.text)
    ? row.text.replace(/^(\s*title\s*=\s*).*$/im, (_, head: string) => head + title)
    : `title = ${title}\n${row.text}`
  if (await addChart(title, text, row.tags)) say('A second one, open now.', 'undo')
}

export const removeChart = async (row: ChartRow): Promise<void> => {
  const gone = await removeRow('charts', row.id)
  if (!gone.ok) return say(`Not removed: ${gone.detail}`)
  forgetChart(row.id)
  forgetOpened(row.id)
  const { chart } = $address.get() ?? {}
  if (chart === row.id || chart === null) {
    const other = $library.get()?.items.find((r) => r.id !== row.id)
    go({ chart: other?.id ?? null, ...AT_START })
  }
  say(`Removed: ${row.title}.`, 'undo')
}
