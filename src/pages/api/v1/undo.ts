import { changeEndpoint, notAllowed } from '../../../server/keeping.ts'
import { undo } from '../../../server/rows.ts'

export const POST = changeEndpoint(undo)
export const ALL = notAllowed
