import { readChart } from '../../../../../core/index.ts'
import { CHART_FORMATS } from '../../../../../formats/chart-formats.ts'
import { writeChart } from '../../../../../formats/files.ts'
import { QUERIES } from '../../../../../server/compute-schemas.ts'
import { download, endpoint, notAllowed, orProblem, readQuery } from '../../../../../server/door.ts'
import { getRow } from '../../../../../server/rows.ts'
import { store } from '../../../../../server/store.ts'

export const GET = endpoint(async ({ url, params }) => {
  const { as } = readQuery(url, QUERIES.export)
  const row = await getRow(await store(), 'charts', params.id ?? '')
  const text = String(row.text)
  const chart = { ...orProblem('text', readChart(text)), title: String(row.title) }
  return download(writeChart(chart, text, as), chart.title, CHART_FORMATS[as])
})
export const ALL = notAllowed
