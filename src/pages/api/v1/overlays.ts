import { fromQuery } from '../../../server/computing/in-thread.ts'
import { notAllowed } from '../../../server/door.ts'

export const GET = fromQuery('overlays')
export const ALL = notAllowed
