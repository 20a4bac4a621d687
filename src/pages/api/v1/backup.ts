import { backupAnswer } from '../../../server/backup/answers.ts'
import { endpoint, notAllowed } from '../../../server/door.ts'

export const GET = endpoint(({ url }) => backupAnswer(url))
export const ALL = notAllowed
