import Joi, { type ObjectSchema } from 'joi'
import { refuseOddities } from '../check.ts'
import type { Problem } from '../problems.ts'
import { ROWS } from '../schemas.ts'
import { PART } from '../take-schemas.ts'
import { notABackup, rowsMember } from './manifest.ts'
import { BACKED_UP, type BackedUp } from './tables.ts'

/** A row of a backup, by the names of the interface. */
export type KeptRow = Readonly<Record<string, unknown>>

const ID = Joi.string().pattern(/^[0-9a-z-]{1,60}$/, 'an id')
const moment = Joi.string().isoDate().raw()
const STAMPS = {
  id: ID.required(),
  version: Joi.number().integer().min(1).max(2_147_483_647).required(),
  createdAt: moment.required(),
  updatedAt: moment.required(),
  deletedAt: moment.allow(null).required(),
}
const SOUND = Joi.object({ type: Joi.string().max(40).required(), bytes: Joi.number().integer().min(0).required() })

const schemaOf = ({ kind }: BackedUp): ObjectSchema => {
  if (kind === null) return (PART as ObjectSchema).keys({ takeId: ID.required(), at: moment.required() })
  return ROWS[kind].keys(kind === 'takes' ? { ...STAMPS, sound: SOUND.allow(null) } : STAMPS)
}
const SCHEMAS = new Map(BACKED_UP.map((t) => [t.name, schemaOf(t)]))

/** Reads a row of a backup; throws where it is not such as is kept. `n` is its place, from 1. */
export const checkRow = (text: string, table: BackedUp, n: number): KeptRow => {
  const refuse = (why: string) =>
    notABackup(`Row ${n} of ${rowsMember(table.name)} cannot be kept: ${why.replace(/\.$/, '')}.`)
  let row: unknown
  try {
    row = JSON.parse(text)
  } catch {
    throw refuse('it is not JSON')
  }
  try {
    refuseOddities(row)
  } catch (error) {
    throw refuse((error as Problem).detail)
  }
  const { error } = (SCHEMAS.get(table.name) as ObjectSchema).validate(row, { convert: true })
  if (error) throw refuse(error.message.replaceAll('"', ''))
  return row as KeptRow
}
