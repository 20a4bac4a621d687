import { endpoint, json, notAllowed, readQuery } from '../../../../server/door.ts'
import { coverageAnswer, PRACTICE_QUERIES } from '../../../../server/practice.ts'
import { store } from '../../../../server/store.ts'

export const GET = endpoint(async ({ url }) =>
  json(await coverageAnswer(await store(), readQuery(url, PRACTICE_QUERIES.coverage))),
)
export const ALL = notAllowed
