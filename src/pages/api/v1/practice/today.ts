import { endpoint, json, notAllowed, readQuery } from '../../../../server/door.ts'
import { PRACTICE_QUERIES, todayAnswer } from '../../../../server/practice.ts'
import { store } from '../../../../server/store.ts'

export const GET = endpoint(async ({ url }) =>
  json(await todayAnswer(await store(), readQuery(url, PRACTICE_QUERIES.today))),
)
export const ALL = notAllowed
