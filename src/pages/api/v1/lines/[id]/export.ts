import { LINE_FORMATS, writeLine } from '../../../../../formats/line-write.ts'
import { chartOfRow } from '../../../../../server/charts-of-rows.ts'
import { QUERIES } from '../../../../../server/compute-schemas.ts'
import { download, endpoint, notAllowed, readQuery } from '../../../../../server/door.ts'
import { lineFrom, type SentLine } from '../../../../../server/lines.ts'
import { fieldProblem } from '../../../../../server/problems.ts'
import { getRow } from '../../../../../server/rows.ts'
import { store } from '../../../../../server/store.ts'

export const GET = endpoint(async ({ url, params }) => {
  const { as, band, ...manner } = readQuery(url, QUERIES.exportLine)
  const row = await getRow(await store(), 'lines', params.id ?? '')
  const chart = await chartOfRow(row)
  if (!chart)
    throw fieldProblem('as', 'The chart of this line is gone, and it has no text of its own.', as, [
      'a line with a chart',
    ])
  const name = String(row.name)
  const line = lineFrom(row.line as SentLine, 'line')
  return download(writeLine(name, line, chart, as, band ? manner : null), name, LINE_FORMATS[as])
})
export const ALL = notAllowed
