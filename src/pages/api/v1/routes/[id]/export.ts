import type { KeptStep } from '../../../../../core/index.ts'
import { ROUTE_FORMATS, writeRoute } from '../../../../../formats/routes.ts'
import { chartOfRow } from '../../../../../server/charts-of-rows.ts'
import { QUERIES } from '../../../../../server/compute-schemas.ts'
import { download, endpoint, notAllowed, readQuery } from '../../../../../server/door.ts'
import { fieldProblem } from '../../../../../server/problems.ts'
import { getRow } from '../../../../../server/rows.ts'
import { store } from '../../../../../server/store.ts'

export const GET = endpoint(async ({ url, params }) => {
  const { as } = readQuery(url, QUERIES.exportRoute)
  const row = await getRow(await store(), 'routes', params.id ?? '')
  const chart = await chartOfRow(row)
  if (as === 'musicxml' && !chart)
    throw fieldProblem('as', 'The chart of this route is gone, so there is no score to write it above.', as, [
      'text',
      'csv',
    ])
  const name = String(row.name)
  return download(writeRoute(name, row.steps as readonly KeptStep[], chart, as), name, ROUTE_FORMATS[as])
})
export const ALL = notAllowed
