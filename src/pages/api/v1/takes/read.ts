import { fromBody } from '../../../../server/computing/in-thread.ts'
import { notAllowed, TAKE_LIMIT } from '../../../../server/door.ts'

export const POST = fromBody('take', TAKE_LIMIT)
export const ALL = notAllowed
