import { restoreAnswer } from '../../../server/backup/answers.ts'
import { endpoint, json, notAllowed } from '../../../server/door.ts'

export const POST = endpoint(async ({ request, url }) => json(await restoreAnswer(request, url)))
export const ALL = notAllowed
