import type { KeptOverride } from '../core/index.ts'
import type { KeptText } from './computing/asked.ts'
import { type Row, rowOrNull } from './rows.ts'
import type { Database } from './sql.ts'

/** A kept route or line with the text of the chart it lies over: the kept one's, else its own; null where it has neither any more. */
export const withChart = async (db: Database, row: Row): Promise<KeptText> => {
  const { chartId, text: own } = row
  const chart = typeof chartId === 'string' ? await rowOrNull(db, 'charts', chartId) : null
  if (chart) {
    const overrides = (chart.overrides ?? null) as readonly KeptOverride[] | null
    return { row, chart: { text: String(chart.text), title: String(chart.title), overrides } }
  }
  return { row, chart: typeof own === 'string' ? { text: own } : null }
}
