import Joi from 'joi'
import { OCCASIONS } from './manifest.ts'
import { MANNERS, type Manner } from './merge.ts'
import { BACKED_UP } from './tables.ts'

export const BACKUP_QUERY = Joi.object<{ readable: boolean }>({ readable: Joi.boolean().empty('').default(false) })

export interface RestoreAsked {
  readonly how: Manner
  /** Only to see what it holds. */
  readonly look: boolean
}
const HOW = {
  how: Joi.string()
    .valid(...MANNERS)
    .empty('')
    .default('replace'),
  look: Joi.boolean().empty('').default(false),
}
export const RESTORE_QUERY = Joi.object<RestoreAsked>(HOW)
/** One that stands beside the data, by its name. */
export const RESTORE_BODY = Joi.object<RestoreAsked & { of: string }>({ of: Joi.string().max(100).required(), ...HOW })

const count = Joi.number().integer().min(0).required()
const ofKinds = (schema: Joi.Schema) =>
  Joi.object(Object.fromEntries(BACKED_UP.flatMap((t) => (t.kind === null ? [] : [[t.name, schema]]))))
const HOLDS = {
  version: Joi.string().required(),
  schema: count,
  made: Joi.string().isoDate().required(),
  occasion: Joi.string()
    .valid(...OCCASIONS)
    .required(),
  holds: ofKinds(count).required(),
  sounds: count,
  soundsLeft: count,
}

/** What was found in a backup, and where it was brought in, what came of it. */
export const RESTORED = Joi.object({
  ...HOLDS,
  how: Joi.string()
    .valid(...MANNERS)
    .allow(null)
    .required(),
  before: Joi.string().allow(null).required(),
  came: ofKinds(Joi.object({ added: count, replaced: count, left: count }))
    .allow(null)
    .required(),
})

const OPTIONAL = Object.fromEntries(Object.entries(HOLDS).map(([name, schema]) => [name, schema.optional()]))
export const BACKUP_LIST = Joi.object({
  items: Joi.array()
    .items(Joi.object({ name: Joi.string().required(), bytes: count, readable: Joi.boolean().required(), ...OPTIONAL }))
    .required(),
  damage: Joi.string().allow(null).required(),
})
