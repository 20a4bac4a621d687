import { nameSet, readOverlay } from '../../../core/index.ts'
import { namesAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readQuery } from '../../../server/door.ts'
import { orProblem } from '../../../server/texts.ts'

export const GET = endpoint(({ url }) =>
  json(namesAnswer(nameSet(orProblem('notes', readOverlay(readQuery(url, QUERIES.name).notes))))),
)
export const ALL = notAllowed
