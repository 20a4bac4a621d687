import { endpoint, json, notAllowed } from '../../../../server/door.ts'
import { store } from '../../../../server/store.ts'
import { recoverTakes } from '../../../../server/takes.ts'

export const POST = endpoint(async () => json(await recoverTakes(await store())))
export const ALL = notAllowed
