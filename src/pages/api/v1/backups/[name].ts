import { keptBackupAnswer } from '../../../../server/backup/answers.ts'
import { endpoint, notAllowed } from '../../../../server/door.ts'

export const GET = endpoint(({ params }) => keptBackupAnswer(params.name ?? ''))
export const ALL = notAllowed
