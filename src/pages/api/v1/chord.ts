import { readHarmony } from '../../../core/index.ts'
import { harmonyAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readQuery } from '../../../server/door.ts'
import { orProblem } from '../../../server/texts.ts'

export const GET = endpoint(({ url }) =>
  json(harmonyAnswer(orProblem('symbol', readHarmony(readQuery(url, QUERIES.chord).symbol)))),
)
export const ALL = notAllowed
