import { deleteEndpoint, getEndpoint, notAllowed, updateEndpoint } from '../../../../server/keeping.ts'

export const GET = getEndpoint
export const PUT = updateEndpoint
export const DELETE = deleteEndpoint
export const ALL = notAllowed
