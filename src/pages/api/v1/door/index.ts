import { doorAnswer, openAnswer } from '../../../../server/devices/answers.ts'
import { endpoint, json, notAllowed } from '../../../../server/door.ts'

export const GET = endpoint(async ({ request }) => json(await doorAnswer(request)))
export const PUT = endpoint(async ({ request }) => json(await openAnswer(request)))
export const ALL = notAllowed
