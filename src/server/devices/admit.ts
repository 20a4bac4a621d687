import { Problem } from '../problems.ts'
import { store } from '../store.ts'
import { readDoor } from './codes.ts'
import { deviceIn } from './cookie.ts'
import { isLetIn } from './devices.ts'
import { FROM } from './where.mjs'

/** Where a request comes from: this machine, a device that was let in, or elsewhere. */
export type From = 'here' | 'device' | 'elsewhere'

/** Who somebody is that does not ask from this machine, by the cookies that were sent. */
const admit = async (cookies: string): Promise<From> => {
  if (!cookies.includes('crossfade-device=')) return 'elsewhere'
  const db = await store()
  const { open, key } = await readDoor(db)
  const id = key === null ? null : deviceIn(cookies, key)
  return open && id !== null && (await isLetIn(db, id, new Date())) ? 'device' : 'elsewhere'
}
Object.assign(globalThis, { [Symbol.for('crossfade.admit')]: admit })

/** Whether who asked is let in still. */
export const admitted = async (request: Request): Promise<boolean> =>
  (await admit(request.headers.get('cookie') ?? '').catch(() => 'elsewhere')) === 'device'

/** Where this request came from. While developing there is no gate, and nobody comes from elsewhere. */
export const cameFrom = (request: Request): From => {
  const from = request.headers.get(FROM)
  return from === 'here' || from === 'device' ? from : import.meta.env.DEV ? 'here' : 'elsewhere'
}

/** For what only who sits at the machine may do. */
export const onlyHere = (request: Request): void => {
  if (cameFrom(request) !== 'here')
    throw new Problem('only_here', 'Who is let in is said at the machine that Crossfade runs on.')
}
