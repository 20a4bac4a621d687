import { fromBody } from '../../../../server/computing/aside.ts'
import { notAllowed } from '../../../../server/door.ts'

export const POST = fromBody('analyse')
export const ALL = notAllowed
