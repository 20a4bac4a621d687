import { fromRow } from '../../../../../server/computing/in-thread.ts'
import { notAllowed } from '../../../../../server/door.ts'

export const GET = fromRow('exportTake', 'takes')
export const ALL = notAllowed
