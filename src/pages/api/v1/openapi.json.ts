import { endpoint, json, notAllowed } from '../../../server/door.ts'
import { openapi } from '../../../server/openapi.ts'

export const GET = endpoint(() => json(openapi(__VERSION__)))
export const ALL = notAllowed
