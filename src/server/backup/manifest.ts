import { createHash } from 'node:crypto'
import Joi from 'joi'
import { Problem } from '../problems.ts'
import { BACKED_UP } from './tables.ts'

/** What a backup is called by in its own first lines, and how its files are laid out. */
const MARK = 'backup of Crossfade'
const FORM = 1

/** The member of the zip that tells what the others are. */
export const MANIFEST = 'backup.json'

/** Why a backup was made. */
export const OCCASIONS = ['asked for', 'at a clean stop', 'now and then', 'before going back'] as const
export type Occasion = (typeof OCCASIONS)[number]

export interface Member {
  readonly bytes: number
  readonly sha256: string
}

/** What a backup says of itself. */
export interface Manifest {
  readonly is: typeof MARK
  readonly form: number
  readonly version: string
  readonly schema: number
  /** ISO, UTC. */
  readonly made: string
  readonly occasion: Occasion
  /** Rows of each kind that are not deleted. */
  readonly holds: Readonly<Record<string, number>>
  readonly sounds: number
  /** Sounds that were left where they are, since the backup stands beside them. */
  readonly soundsLeft: number
  /** The state of the data by which one sees whether anything was written since. */
  readonly state: string
  readonly members: Readonly<Record<string, Member>>
}

const checksumOf = (manifest: Manifest): string => createHash('sha256').update(JSON.stringify(manifest)).digest('hex')

export const manifestOf = (told: Omit<Manifest, 'is' | 'form'>): Manifest => ({ is: MARK, form: FORM, ...told })

/** As it stands in the zip: readable, and with a checksum over itself. */
export const printManifest = (manifest: Manifest): string =>
  `${JSON.stringify({ ...manifest, checksum: checksumOf(manifest) }, null, 2)}\n`

export const soundMember = (id: string): string => `sounds/${id}.sound`
const ID = /^[0-9a-z-]{1,60}$/
/** The take whose sound a member is, or null where it is none. */
export const takeOfMember = (name: string): string | null => {
  const [, id] = /^sounds\/(.+)\.sound$/.exec(name) ?? []
  return id !== undefined && ID.test(id) ? id : null
}
export const rowsMember = (name: string): string => `${name}.json`

const whole = Joi.number().integer().min(0)
const MEMBER_NAMES = BACKED_UP.map((t) => rowsMember(t.name))
const SHAPE = Joi.object({
  is: Joi.string().required(),
  form: whole.required(),
  version: Joi.string().max(40).required(),
  schema: whole.required(),
  made: Joi.string().isoDate().raw().required(),
  occasion: Joi.string()
    .valid(...OCCASIONS)
    .required(),
  holds: Joi.object().pattern(Joi.string().max(40), whole).required(),
  sounds: whole.required(),
  soundsLeft: whole.required(),
  state: Joi.string().max(100).required(),
  members: Joi.object()
    .pattern(
      Joi.string().custom((name: string) => {
        if (MEMBER_NAMES.includes(name) || takeOfMember(name) !== null) return name
        throw new Error('is no part of a backup')
      }),
      Joi.object({ bytes: whole.required(), sha256: Joi.string().hex().length(64).required() }),
    )
    .required(),
  checksum: Joi.string().required(),
})

export const notABackup = (why: string): Problem => new Problem('bad_backup', why)

/** Reads what a backup says of itself; throws where it is none, was changed, or is of a newer program. */
export const readManifest = (text: string, newest: number): Manifest => {
  const parsed = (() => {
    try {
      return JSON.parse(text) as unknown
    } catch {
      throw notABackup(`${MANIFEST} is not JSON: this is no backup, or it is damaged.`)
    }
  })()
  const { is, form, schema } = (parsed ?? {}) as Partial<Manifest>
  if (is !== MARK) throw notABackup('This is not a backup of Crossfade.')
  if (typeof form === 'number' && form > FORM)
    throw notABackup('This backup was written by a newer Crossfade, in a form that this one does not know.')
  if (typeof schema === 'number' && schema > newest)
    throw notABackup(
      `This backup was written by a newer Crossfade (schema ${schema}; this program knows ${newest}). Bring the program up to date first.`,
    )
  const { error } = SHAPE.validate(parsed, { convert: false })
  if (error) throw notABackup(`${MANIFEST} is damaged: ${error.message}.`)
  const { checksum, ...manifest } = parsed as Manifest & { readonly checksum: string }
  if (checksum !== checksumOf(manifest)) throw notABackup(`${MANIFEST} is damaged: it is not as it was written.`)
  return manifest
}
