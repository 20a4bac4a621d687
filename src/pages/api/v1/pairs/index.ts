import { fromQuery } from '../../../../server/computing/in-thread.ts'
import { notAllowed } from '../../../../server/door.ts'

export const GET = fromQuery('pairs')
export const ALL = notAllowed
