import { nameSet, readOverlay } from '../../../core/index.ts'
import { namesAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, orProblem, readQuery } from '../../../server/door.ts'

export const GET = endpoint(({ url }) =>
  json(namesAnswer(nameSet(orProblem('notes', readOverlay(readQuery(url, QUERIES.name).notes))))),
)
export const ALL = notAllowed
