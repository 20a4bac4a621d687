import Joi, { type CustomHelpers } from 'joi'
import {
  GRADES,
  ITEM_KEY_ORDERS,
  LOG_KINDS,
  OUTSIDE_NAMES,
  OUTSIDE_SOURCES,
  readChord,
  readNote,
  readOverlay,
  USUAL_LADDER,
} from '../core/index.ts'
import { fieldProblem } from './problems.ts'
import { orProblem } from './texts.ts'

type Fields = Readonly<Record<string, unknown>>

const text = (max: number) => Joi.string().max(max)
const id = text(60).allow(null)
const order = Joi.string()
  .replace(/^at random$/, 'random')
  .valid(...ITEM_KEY_ORDERS)
const keyNames = Joi.array().items(text(60).trim().min(1)).max(40)
const tempo = Joi.number().min(20).max(400)
const bar = Joi.number().integer().min(0).max(10_000)

/** Before this year no calendar here counts. */
const FIRST_YEAR = 1900
/** A moment, brought to UTC. */
const moment = Joi.string()
  .isoDate()
  .custom((value: string, helpers: CustomHelpers) => {
    const at = new Date(value)
    if (Number.isNaN(at.getTime())) return value
    if (at.getUTCFullYear() < FIRST_YEAR)
      return helpers.message({ custom: `{{#label}} lies before the year ${FIRST_YEAR}` })
    return at.toISOString()
  })

/** What an item is of. Kinds nobody knows yet are kept as they are. */
const OF = Joi.object({
  kind: text(40).trim().min(1).required(),
  key: text(10),
  overlay: text(200),
  chord: text(60),
  next: text(60).allow(null),
  chartId: id,
  routeId: id,
  lineId: id,
  bars: Joi.object({ from: bar.required(), to: bar.min(Joi.ref('from')).required() }).allow(null),
  topics: Joi.array().items(text(60)).max(40),
  outside: text(200),
  outsideChartId: id,
  block: Joi.number().integer().min(1).max(32),
  first: Joi.string().valid('out', 'in'),
  sounds: Joi.array().items(text(200)).min(1).max(8),
}).unknown()

const MOST_OF = 20_000
const small = <T>(value: T, helpers: CustomHelpers): T | Joi.ErrorReport =>
  JSON.stringify(value).length > MOST_OF ? helpers.message({ custom: '{{#label}} is too long' }) : value

const LADDER = Joi.object({
  from: tempo.default(USUAL_LADDER.from),
  to: tempo.min(Joi.ref('from')).default((parent: { from: number }) => Math.max(USUAL_LADDER.to, parent.from)),
  step: Joi.number().min(1).max(40).default(USUAL_LADDER.step),
})

/** What a practice item holds. */
export const ITEM_ROW = Joi.object<Record<string, unknown>>({
  name: text(200).trim().min(1).required(),
  of: OF.custom(small).required(),
  keys: Joi.alternatives()
    .try(order, keyNames.min(1), Joi.object({ order: order.required(), without: keyNames.default([]) }))
    .default('fourths'),
  tempo: LADDER.default(USUAL_LADDER),
  pattern: Joi.any().custom(small).allow(null).default(null),
  note: text(4000).allow(null, '').default(null),
  tags: Joi.array().items(text(60).trim().min(1)).max(40).default([]),
  rests: Joi.array()
    .items(Joi.object({ key: text(60).allow(null).default(null), until: moment.allow(null).default(null) }))
    .max(60)
    .allow(null)
    .default(null),
})

/** What an entry of the log holds. */
export const LOG_ROW = Joi.object<Record<string, unknown>>({
  at: moment.default(() => new Date().toISOString()),
  kind: Joi.string()
    .valid(...LOG_KINDS)
    .required(),
  itemId: id.default(null),
  key: text(60).allow(null).default(null),
  tempo: tempo.allow(null).default(null),
  grade: Joi.string()
    .valid(...GRADES, null)
    .default(null),
  minutes: Joi.number().min(0).max(1440).allow(null).default(null),
  text: Joi.when('kind', {
    is: 'word',
    // biome-ignore lint/suspicious/noThenProperty: it is what the schema calls it
    then: text(4000).trim().min(1).required(),
    otherwise: text(4000).allow(null, '').default(null),
  }),
  answered: Joi.object({ topic: text(60).required(), right: text(200).required(), given: text(200).required() })
    .allow(null)
    .default(null),
})

const readKey = (path: string, name: string): void => {
  const read = orProblem(path, readNote(name, 0))
  if (read.end < name.length) throw fieldProblem(path, `“${name}” is no key.`, name, ['a note, as Eb or F#'])
}

const isOutside = (name: string): boolean => [...OUTSIDE_NAMES, ...OUTSIDE_SOURCES].includes(name)

/** What the core must be able to read of an item. */
export const readItem = (row: Fields): void => {
  const of = row.of as Fields & { readonly kind: string }
  if (typeof of.key === 'string') readKey('of.key', of.key)
  if (typeof of.overlay === 'string') orProblem('of.overlay', readOverlay(of.overlay))
  if (typeof of.outside === 'string' && !isOutside(of.outside)) orProblem('of.outside', readOverlay(of.outside))
  for (const name of ['chord', 'next'])
    if (typeof of[name] === 'string') orProblem(`of.${name}`, readChord(String(of[name])))
  for (const [i, sound] of ((of.sounds ?? []) as readonly string[]).entries())
    orProblem(`of.sounds.${i}`, readOverlay(sound))
  if (of.kind === 'quiz') return
  const { keys } = row as { readonly keys: unknown }
  if (Array.isArray(keys)) for (const [i, key] of keys.entries()) readKey(`keys.${i}`, String(key))
  else if (typeof keys === 'object' && keys !== null)
    for (const [i, key] of ((keys as { without?: readonly string[] }).without ?? []).entries())
      readKey(`keys.without.${i}`, key)
}
