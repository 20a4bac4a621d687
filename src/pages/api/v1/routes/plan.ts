import { fromBody } from '../../../../server/computing/aside.ts'
import { notAllowed } from '../../../../server/door.ts'

export const POST = fromBody('plan')
export const ALL = notAllowed
