import { endpoint, json, notAllowed } from '../../../server/door.ts'
import { playingAnswer } from '../../../server/live/playing.ts'

export const POST = endpoint(async ({ request }) => json(await playingAnswer(request)))
export const ALL = notAllowed
