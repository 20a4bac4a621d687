import { fromFile } from '../../../../server/computing/aside.ts'
import { notAllowed } from '../../../../server/door.ts'

export const POST = fromFile('readLine')
export const ALL = notAllowed
