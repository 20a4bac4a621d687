import { readBody } from '../door.ts'
import { DEVICES } from '../live/hearing.ts'
import { type Database, TELL } from '../sql.ts'
import { store } from '../store.ts'
import { onlyHere } from './admit.ts'
import { giveCode, readDoor, setOpen } from './codes.ts'
import { listDevices, nameDevice, revokeDevice } from './devices.ts'
import { doorsOutside } from './outside.ts'
import { NAME_BODY, NOTHING, OPEN_BODY } from './schemas.ts'

const doorNow = async (db: Database, now = new Date()) => {
  const { open, code, codeUntil, shutUntil } = await readDoor(db)
  return {
    open,
    addresses: await doorsOutside().show(open),
    code: code !== null && codeUntil !== null && codeUntil > now ? { digits: code, until: codeUntil } : null,
    shutUntil: shutUntil !== null && shutUntil > now ? shutUntil : null,
    devices: await listDevices(db),
  }
}

/** Each of these is asked and answered at the machine alone. */
const atTheMachine =
  (work: (db: Database, request: Request) => Promise<unknown> = async () => undefined) =>
  async (request: Request) => {
    onlyHere(request)
    const db = await store()
    await work(db, request)
    return doorNow(db)
  }

export const doorAnswer = atTheMachine()

const tellDevices = (db: Database) => db.query(TELL, [DEVICES])

export const openAnswer = atTheMachine(async (db, request) => {
  await setOpen(db, (await readBody(request, OPEN_BODY)).open)
  await tellDevices(db)
})

export const codeAnswer = atTheMachine(async (db, request) => {
  await readBody(request, NOTHING, true)
  await giveCode(db, new Date())
})

export const nameAnswer = (id: string) =>
  atTheMachine(async (db, request) => nameDevice(db, id, (await readBody(request, NAME_BODY)).name))

export const revokeAnswer = (id: string) =>
  atTheMachine(async (db) => {
    await revokeDevice(db, id)
    await tellDevices(db)
  })
