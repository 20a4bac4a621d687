import { fromFile } from '../../../../server/computing/in-thread.ts'
import { notAllowed } from '../../../../server/door.ts'

export const POST = fromFile('readLine')
export const ALL = notAllowed
