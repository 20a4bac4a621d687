import { Problem } from '../problems.ts'
import { store } from '../store.ts'
import { readDoor } from './codes.ts'
import { deviceIn } from './cookie.ts'
import { isLetIn } from './devices.ts'
import { FROM } from './where.mjs'

/** Where a request comes from: this machine, a device that was let in, or elsewhere. */
export type From = 'here' | 'device' | 'elsewhere'

/** As the gate writes it of a device: which one it is stands behind this. */
const DEVICE = 'device '

/** Who somebody is that does not ask from this machine, by the cookies that were sent. */
const admit = async (cookies: string): Promise<`device ${string}` | 'elsewhere'> => {
  if (!cookies.includes('crossfade-device=')) return 'elsewhere'
  const db = await store()
  const { open, key } = await readDoor(db)
  const id = key === null ? null : deviceIn(cookies, key)
  return open && id !== null && (await isLetIn(db, id, new Date())) ? `${DEVICE}${id}` : 'elsewhere'
}
Object.assign(globalThis, { [Symbol.for('crossfade.admit')]: admit })

/** Whether who asked is let in still. */
export const admitted = async (request: Request): Promise<boolean> =>
  (await admit(request.headers.get('cookie') ?? '').catch(() => 'elsewhere')) !== 'elsewhere'

/** Where this request came from. While developing there is no gate, and nobody comes from elsewhere. */
export const cameFrom = (request: Request): From => {
  const from = request.headers.get(FROM)
  if (from?.startsWith(DEVICE)) return 'device'
  return from === 'here' || import.meta.env.DEV ? 'here' : 'elsewhere'
}

/** Who takes turns as one: a device that was let in, though many come through one proxy; else all from one address. */
export const askerOf = (request: Request, address: string): string =>
  cameFrom(request) === 'device' ? (request.headers.get(FROM) ?? address) : address

/** For what only who sits at the machine may do. */
export const onlyHere = (request: Request): void => {
  if (cameFrom(request) !== 'here')
    throw new Problem('only_here', 'Who is let in is said at the machine that Crossfade runs on.')
}
