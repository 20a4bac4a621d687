import { readChart, readKey } from '../../../../core/index.ts'
import { analysisAnswer } from '../../../../server/analysis.ts'
import { BODIES } from '../../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, orProblem, readBody } from '../../../../server/door.ts'

export const POST = endpoint(async ({ request }) => {
  const asked = await readBody(request, BODIES.analyse)
  const chart = orProblem('text', readChart(asked.text))
  const key = asked.key === '' ? chart.key : orProblem('key', readKey(asked.key))
  return json(analysisAnswer({ ...chart, key }, asked.overrides, asked.school))
})
export const ALL = notAllowed
