import { readChart } from '../../../../../core/index.ts'
import { CHART_FORMATS } from '../../../../../formats/chart-formats.ts'
import { writeChart } from '../../../../../formats/files.ts'
import { QUERIES } from '../../../../../server/compute-schemas.ts'
import { endpoint, notAllowed, orProblem, readQuery } from '../../../../../server/door.ts'
import { getRow } from '../../../../../server/rows.ts'
import { store } from '../../../../../server/store.ts'

const fileName = (title: string): string => title.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'chart'

export const GET = endpoint(async ({ url, params }) => {
  const { as } = readQuery(url, QUERIES.export)
  const row = await getRow(await store(), 'charts', params.id ?? '')
  const text = String(row.text)
  const chart = { ...orProblem('text', readChart(text)), title: String(row.title) }
  const { extension, type } = CHART_FORMATS[as]
  const name = encodeURIComponent(`${fileName(chart.title)}.${extension}`)
  return new Response(writeChart(chart, text, as), {
    headers: {
      'content-type': type,
      'cache-control': 'no-store',
      'content-disposition': `attachment; filename*=UTF-8''${name}`,
    },
  })
})
export const ALL = notAllowed
