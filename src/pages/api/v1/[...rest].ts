import { endpoint } from '../../../server/door.ts'
import { Problem } from '../../../server/problems.ts'

export const ALL = endpoint(({ url }) => {
  throw new Problem('not_found', `${url.pathname} is not part of this interface.`)
})
