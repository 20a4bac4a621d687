import { $address } from '../address/address.ts'
import { forgetChart } from './kept.ts'
import { $fetched, fetchedKey, fetchOver, fetchPage, type OverChart } from './lists.ts'
import type { News } from './news.ts'
import { $opening, openingKey, openRow } from './opening.ts'
import type { KindName } from './row-types.ts'
import { $rows, adoptRows, forgetRow, keyOfRow, standingOf } from './rows.ts'
import { isOwnStep } from './unsent.ts'

/** What comes close together is read together, ms; so much of it, and everything in sight is read anew instead. */
const GATHER_MS = 60
const MOST_SINGLE = 40

type Changed = Extract<News, { news: 'row' }>
const changed = new Map<string, Changed>()
let gathering: ReturnType<typeof setTimeout> | null = null
let reading: Promise<void> = Promise.resolve()
/** One after another; one that failed holds up none. */
const readNext = (work: () => Promise<void>): void => {
  reading = reading.then(work, work)
}

const forget = (kind: KindName, id: string): void => {
  const key = keyOfRow(kind, id)
  // What is not kept here stays, and is told to be gone when it is sent.
  if ((standingOf(kind, key)?.state ?? 'kept') !== 'kept') return
  $opening.setKey(openingKey(kind, id), { state: 'missing' })
  if (kind === 'charts') forgetChart(key)
  else forgetRow(kind, key)
}

/** Reads one row as it is now. Of routes another may be in hand with it. */
const readOne = async ({ kind, id, gone }: Changed): Promise<void> => {
  if (gone) forget(kind, id)
  else await openRow(kind, id)
  const chartId = kind === 'routes' ? $rows.routes.get()[id]?.row.chartId : null
  if (chartId && $fetched.get()[fetchedKey('routes', chartId)]) await fetchOver('routes', chartId)
}

const OVER: readonly OverChart[] = ['routes', 'ideas', 'lines']
const LISTED = ['items', 'log', 'takes', 'settings'] as const

/** Reads anew what is in sight, where single changes were not heard. */
const readInSight = async (): Promise<void> => {
  const chart = $address.get()?.chart
  if (chart) {
    await openRow('charts', chart)
    for (const kind of OVER) if ($fetched.get()[fetchedKey(kind, chart)]) await fetchOver(kind, chart)
  }
  for (const kind of LISTED) {
    if (Object.keys($rows[kind].get()).length === 0) continue
    const page = await fetchPage(kind, { limit: '100' })
    if (page.ok) adoptRows(kind, page.value.items as never)
  }
}

const readChanged = async (): Promise<void> => {
  const all = [...changed.values()]
  changed.clear()
  if (all.length > MOST_SINGLE) return readInSight()
  for (const one of all) await readOne(one)
}

/** Takes in what was changed elsewhere; this tab's own changes it has already. */
export const hearChange = (news: News): void => {
  if (news.news === 'missed') readNext(readInSight)
  if (news.news !== 'row' || isOwnStep(news.step)) return
  changed.set(`${news.kind} ${news.id}`, news)
  gathering ??= setTimeout(() => {
    gathering = null
    readNext(readChanged)
  }, GATHER_MS)
}
