import { BODIES } from '../../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readBody } from '../../../../server/door.ts'
import { auditAnswer } from '../../../../server/lines.ts'

export const POST = endpoint(async ({ request }) => json(auditAnswer(await readBody(request, BODIES.audit))))
export const ALL = notAllowed
