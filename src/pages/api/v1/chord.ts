import Joi from 'joi'
import { readChord } from '../../../core/index.ts'
import { chordAnswer } from '../../../server/answers.ts'
import { endpoint, json, notAllowed, orProblem, readQuery } from '../../../server/door.ts'

const QUERY = Joi.object<{ symbol: string }>({ symbol: Joi.string().allow('').max(200).required() })

export const GET = endpoint(({ url }) =>
  json(chordAnswer(orProblem('symbol', readChord(readQuery(url, QUERY).symbol)))),
)
export const ALL = notAllowed
