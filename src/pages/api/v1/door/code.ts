import { codeAnswer } from '../../../../server/devices/answers.ts'
import { endpoint, json, notAllowed } from '../../../../server/door.ts'

export const POST = endpoint(async ({ request }) => json(await codeAnswer(request)))
export const ALL = notAllowed
