import { readHarmony } from '../../../core/index.ts'
import { harmonyAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, orProblem, readQuery } from '../../../server/door.ts'

export const GET = endpoint(({ url }) =>
  json(harmonyAnswer(orProblem('symbol', readHarmony(readQuery(url, QUERIES.chord).symbol)))),
)
export const ALL = notAllowed
