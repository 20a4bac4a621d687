import { randomBytes, randomInt, randomUUID } from 'node:crypto'
import type { Database, Sql } from '../sql.ts'
import { sameText } from './cookie.ts'

const DIGITS = 8
/** So long a code is good, and for one device. */
const GOOD_MS = 10 * 60_000
/** After so many wrong ones in a row the door is shut for so long, to the right one as well. */
const MOST_WRONG = 10
const SHUT_MS = 60_000

/** The door as it is kept. */
export interface Door {
  readonly open: boolean
  readonly key: string | null
  readonly code: string | null
  readonly codeUntil: Date | null
  readonly wrong: number
  readonly shutUntil: Date | null
}
const COLUMNS = 'open, key, code, code_until as "codeUntil", wrong, shut_until as "shutUntil"'

/** The door as it stands; a migration made its one row. */
export const readDoor = async (sql: Sql, how: '' | 'for update' = ''): Promise<Door> => {
  const [door] = await sql.query<Door>(`select ${COLUMNS} from door ${how}`)
  if (!door) throw new Error('The door has no row.')
  return door
}

/** The key that cookies are signed with, made where there is none yet. */
export const signingKey = async (sql: Sql): Promise<string> => {
  const [row] = await sql.query<{ key: string }>('update door set key = coalesce(key, $1) returning key', [
    randomBytes(32).toString('base64url'),
  ])
  return row?.key ?? ''
}

/** Opens the door or shuts it; a code that was given out is void once it is shut. */
export const setOpen = (sql: Sql, open: boolean): Promise<unknown> =>
  sql.query(
    `update door set open = $1, code = case when $1 then code end, code_until = case when $1 then code_until end`,
    [open],
  )

/** Gives out a new code in place of the one before, and opens the door. */
export const giveCode = async (sql: Sql, now: Date): Promise<string> => {
  const code = String(randomInt(10 ** DIGITS)).padStart(DIGITS, '0')
  await sql.query('update door set open = true, code = $1, code_until = $2', [code, new Date(now.getTime() + GOOD_MS)])
  return code
}

export type Taken =
  | { readonly kind: 'in'; readonly id: string }
  | { readonly kind: 'wrong' }
  | { readonly kind: 'shut' }

/** Somebody outside gives a code. The right one lets one device in, under a name, and is void after that. */
export const takeCode = (db: Database, given: string, name: string, now: Date): Promise<Taken> =>
  db.transaction(async (sql) => {
    const { open, code, codeUntil, wrong, shutUntil } = await readDoor(sql, 'for update')
    if (shutUntil !== null && shutUntil > now) return { kind: 'shut' }
    const digits = given.replaceAll(/[\s-]/g, '')
    const isGood = open && code !== null && codeUntil !== null && codeUntil > now
    if (isGood && sameText(digits, code)) {
      const id = randomUUID()
      await sql.query('update door set code = null, code_until = null, wrong = 0, shut_until = null')
      await sql.query('insert into devices (id, name, made_at, used_at) values ($1, $2, $3, $3)', [id, name, now])
      return { kind: 'in', id }
    }
    const isLast = wrong + 1 >= MOST_WRONG
    await sql.query('update door set wrong = $1, shut_until = $2', [
      isLast ? 0 : wrong + 1,
      isLast ? new Date(now.getTime() + SHUT_MS) : null,
    ])
    return { kind: isLast ? 'shut' : 'wrong' }
  })
