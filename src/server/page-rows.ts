import { readChart, spotsOf } from '../core/index.ts'
import { KINDS } from './kinds.ts'
import { listRows } from './lists.ts'
import { PAGE } from './queries.ts'
import { type Row, rowOrNull } from './rows.ts'
import { ROWS } from './schemas.ts'
import type { Database } from './sql.ts'

/** What a page is rendered from. */
export interface PageRows {
  readonly titles: readonly { readonly id: string; readonly title: string }[]
  /** The latest. */
  readonly ideas: readonly Row[]
  readonly settings: readonly Row[]
  /** The chart that is open, by its id; its row only where it is short enough to be read while the page waits. */
  readonly chartId: string | null
  readonly chart: Row | null
  readonly route: Row | null
}

/** What a page shows where nothing can be read. */
export const NO_ROWS: PageRows = { titles: [], ideas: [], settings: [], chartId: null, chart: null, route: null }

/** A chart of so many signs and chords is worked out while the page is made; of a longer one the page is made first. */
const SHORT = { signs: 6000, chords: 256 } as const

const isShort = (text: string): boolean => {
  if (text.length > SHORT.signs) return false
  const read = readChart(text)
  return !read.ok || spotsOf(read.value).length <= SHORT.chords
}
const FIRST_IDEAS = { q: '', after: null, limit: 24, sort: '-updatedAt' } as const

/** A route as its schema has it; null for one that was written by something else. */
const sound = (route: Row | null): Row | null => {
  if (route === null) return null
  const fields = Object.fromEntries(KINDS.routes.fields.map(({ field }) => [field, route[field]]))
  return ROWS.routes.validate(fields).error ? null : route
}

const routeInHand = async (db: Database, chartId: string): Promise<Row | null> => {
  const [found] = await db.query<{ id: string }>(PAGE.inHand, [chartId])
  return found ? rowOrNull(db, 'routes', found.id) : null
}

/** Reads what a page shows: the chart its address names, else the one that was changed last, and its route in hand. */
export const pageRows = async (
  db: Database,
  asked: { readonly chart: string | null; readonly isSketch: boolean },
): Promise<PageRows> => {
  const latest = async (): Promise<string | null> => (await db.query<{ id: string }>(PAGE.latest))[0]?.id ?? null
  const wanted = asked.chart ?? (asked.isSketch ? null : await latest())
  const [titles, ideas, settings, chart] = await Promise.all([
    db.query<{ id: string; title: string }>(PAGE.titles),
    listRows(db, 'ideas', FIRST_IDEAS),
    db.query<Row>(PAGE.settings),
    wanted === null ? null : rowOrNull(db, 'charts', wanted),
  ])
  const route = chart && (await routeInHand(db, chart.id))
  const shown = chart !== null && isShort(String(chart.text)) ? chart : null
  return {
    titles,
    ideas: ideas.items,
    settings,
    chartId: chart?.id ?? null,
    chart: shown,
    route: sound(route),
  }
}
