import { nameAnswer, revokeAnswer } from '../../../../server/devices/answers.ts'
import { endpoint, json, notAllowed } from '../../../../server/door.ts'

export const PUT = endpoint(async ({ request, params }) => json(await nameAnswer(params.id ?? '')(request)))
export const DELETE = endpoint(async ({ request, params }) => json(await revokeAnswer(params.id ?? '')(request)))
export const ALL = notAllowed
