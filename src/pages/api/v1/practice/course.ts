import { endpoint, json, notAllowed, readQuery } from '../../../../server/door.ts'
import { courseAnswer, PRACTICE_QUERIES } from '../../../../server/practice.ts'
import { store } from '../../../../server/store.ts'

export const GET = endpoint(async ({ url }) =>
  json(await courseAnswer(await store(), readQuery(url, PRACTICE_QUERIES.course))),
)
export const ALL = notAllowed
