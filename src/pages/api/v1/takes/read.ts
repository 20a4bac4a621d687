import { fromBody } from '../../../../server/computing/in-thread.ts'
import { notAllowed } from '../../../../server/door.ts'

export const POST = fromBody('take')
export const ALL = notAllowed
