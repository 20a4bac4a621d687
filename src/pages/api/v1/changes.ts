import { endpoint, notAllowed } from '../../../server/door.ts'
import { newsAnswer } from '../../../server/live/stream.ts'

export const GET = endpoint(({ request }) => newsAnswer(request))
export const ALL = notAllowed
