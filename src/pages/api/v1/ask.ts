import { readQuestion } from '../../../core/index.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readQuery } from '../../../server/door.ts'
import { answer } from '../../../server/questions.ts'
import { orProblem } from '../../../server/texts.ts'

export const GET = endpoint(({ url }) => {
  const { q, ...judges } = readQuery(url, QUERIES.ask)
  return json(answer(orProblem('q', readQuestion(q, judges.school)), judges))
})
export const ALL = notAllowed
