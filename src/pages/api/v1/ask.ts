import { readQuestion } from '../../../core/index.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { computeFor, respond } from '../../../server/computing/in-thread.ts'
import { endpoint, json, notAllowed, readQuery } from '../../../server/door.ts'
import { answer, isLong } from '../../../server/questions.ts'
import { orProblem } from '../../../server/texts.ts'

export const GET = endpoint(async (context) => {
  const { q, ...judges } = readQuery(context.url, QUERIES.ask)
  const question = orProblem('q', readQuestion(q, judges.school))
  if (isLong(question)) return respond(await computeFor(context, 'ask', {}))
  return json(answer(question, judges))
})
export const ALL = notAllowed
