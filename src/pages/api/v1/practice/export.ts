import { download, endpoint, notAllowed } from '../../../../server/door.ts'
import { exportAnswer } from '../../../../server/practice.ts'
import { store } from '../../../../server/store.ts'

/** The whole log as a CSV file. */
export const GET = endpoint(async () =>
  download(await exportAnswer(await store()), 'Practice log', { extension: 'csv', type: 'text/csv; charset=utf-8' }),
)
export const ALL = notAllowed
