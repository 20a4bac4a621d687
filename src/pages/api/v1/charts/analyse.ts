import { analysisAnswer } from '../../../../server/analysis.ts'
import { BODIES } from '../../../../server/compute-schemas.ts'
import { chartAt, endpoint, json, notAllowed, readBody } from '../../../../server/door.ts'

export const POST = endpoint(async ({ request }) => {
  const asked = await readBody(request, BODIES.analyse)
  return json(analysisAnswer(chartAt(asked.text, asked.key), asked.overrides, asked.school))
})
export const ALL = notAllowed
