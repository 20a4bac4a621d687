import Joi from 'joi'
import { DEFAULT_SCHOOL, DEFAULT_WEIGHTS, readQuestion } from '../../../core/index.ts'
import { answer } from '../../../server/answers.ts'
import { endpoint, json, notAllowed, orProblem, readQuery } from '../../../server/door.ts'

const QUERY = Joi.object<{ q: string }>({ q: Joi.string().allow('').max(2000).required() })

export const GET = endpoint(({ url }) => {
  const { q } = readQuery(url, QUERY)
  const question = orProblem('q', readQuestion(q, DEFAULT_SCHOOL))
  return json(answer(question, DEFAULT_SCHOOL, DEFAULT_WEIGHTS))
})
export const ALL = notAllowed
