import { type Chart, readChart } from '../core/index.ts'
import { getRow, type Row } from './rows.ts'
import { store } from './store.ts'

/** The chart a kept route or line lies over: the kept one, else the row's own text; null where it has neither any more. */
export const chartOfRow = async ({ chartId, text }: Row): Promise<Chart | null> => {
  const row = typeof chartId === 'string' ? await getRow(await store(), 'charts', chartId).catch(() => null) : null
  const read = row ? readChart(String(row.text)) : typeof text === 'string' ? readChart(text) : null
  if (!read?.ok) return null
  return row ? { ...read.value, title: String(row.title) } : read.value
}
