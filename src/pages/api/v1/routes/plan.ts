import { BODIES } from '../../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readBody } from '../../../../server/door.ts'
import { planAnswer } from '../../../../server/routes.ts'

export const POST = endpoint(async ({ request }) => {
  const asked = await readBody(request, BODIES.plan)
  return json(await planAnswer(asked, request.signal))
})
export const ALL = notAllowed
