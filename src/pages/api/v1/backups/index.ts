import { backupsAnswer } from '../../../../server/backup/answers.ts'
import { endpoint, json, notAllowed } from '../../../../server/door.ts'

export const GET = endpoint(async () => json(await backupsAnswer()))
export const ALL = notAllowed
