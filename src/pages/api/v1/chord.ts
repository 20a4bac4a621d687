import { readChord } from '../../../core/index.ts'
import { chordAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, orProblem, readQuery } from '../../../server/door.ts'

export const GET = endpoint(({ url }) =>
  json(chordAnswer(orProblem('symbol', readChord(readQuery(url, QUERIES.chord).symbol)))),
)
export const ALL = notAllowed
