import { createEndpoint, listEndpoint, notAllowed } from '../../../../server/keeping.ts'

export const GET = listEndpoint
export const POST = createEndpoint
export const ALL = notAllowed
