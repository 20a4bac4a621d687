import { endpoint, json, notAllowed, readQuery } from '../../../../server/door.ts'
import { cardsAnswer, PRACTICE_QUERIES } from '../../../../server/practice.ts'
import { store } from '../../../../server/store.ts'

export const GET = endpoint(async ({ url }) =>
  json(await cardsAnswer(await store(), readQuery(url, PRACTICE_QUERIES.cards))),
)
export const ALL = notAllowed
