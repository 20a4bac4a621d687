import { fromBody } from '../../../../server/computing/aside.ts'
import { notAllowed } from '../../../../server/door.ts'

export const POST = fromBody('audit')
export const ALL = notAllowed
