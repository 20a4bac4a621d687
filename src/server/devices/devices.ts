import { isUnwritable } from '../check.ts'
import { Problem } from '../problems.ts'
import type { Sql } from '../sql.ts'

/** A telephone that was let in. */
export interface Device {
  readonly id: string
  readonly name: string
  readonly madeAt: Date
  readonly usedAt: Date
}

export const listDevices = (sql: Sql): Promise<readonly Device[]> =>
  sql.query<Device>('select id, name, made_at as "madeAt", used_at as "usedAt" from devices order by used_at desc, id')

/** Changes the one device there is of that id. */
const change = async (sql: Sql, statement: string, id: string, ...rest: readonly unknown[]): Promise<void> => {
  const [row] = isUnwritable(id) ? [] : await sql.query(statement, [id, ...rest])
  if (!row) throw new Problem('not_found', `There is no device ${id}.`)
}

export const nameDevice = (sql: Sql, id: string, name: string): Promise<void> =>
  change(sql, 'update devices set name = $2 where id = $1 returning id', id, name)

/** From then on its cookie is nothing. */
export const revokeDevice = (sql: Sql, id: string): Promise<void> =>
  change(sql, 'delete from devices where id = $1 returning id', id)

/** When a device last came is written down at most so often. */
const NOTED_EVERY_MS = 60_000

/** Whether a device is let in still; notes that it came. */
export const isLetIn = async (sql: Sql, id: string, now: Date): Promise<boolean> => {
  const [device] = await sql.query<{ usedAt: Date }>('select used_at as "usedAt" from devices where id = $1', [id])
  if (!device) return false
  if (now.getTime() - device.usedAt.getTime() > NOTED_EVERY_MS)
    await sql.query('update devices set used_at = $2 where id = $1', [id, now])
  return true
}
