import { changeEndpoint, notAllowed } from '../../../server/keeping.ts'
import { redo } from '../../../server/rows.ts'

export const POST = changeEndpoint(redo)
export const ALL = notAllowed
