import { readOverlay } from '../../../core/index.ts'
import { materialAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readQuery } from '../../../server/door.ts'
import { orProblem } from '../../../server/texts.ts'

export const GET = endpoint(({ url }) =>
  json(materialAnswer(orProblem('scale', readOverlay(readQuery(url, QUERIES.symmetry).scale)))),
)
export const ALL = notAllowed
