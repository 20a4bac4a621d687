import Joi, { type CustomHelpers, type ObjectSchema, type Schema } from 'joi'
import { MOST, printCount, readChart, readChord, readOverlay } from '../core/index.ts'
import { KEPT_OVERRIDES, NOTES, SENT_LINE } from './compute-schemas.ts'
import type { Kind, KindName } from './kinds.ts'
import { lineFrom, type SentLine } from './lines.ts'
import type { ListAsked } from './lists.ts'
import { ITEM_ROW, LOG_ROW, readItem } from './practice-schemas.ts'
import { type Sort, sortsOf } from './queries.ts'
import { readableTake, TAKE_ROW } from './take-schemas.ts'
import { orProblem } from './texts.ts'

type Fields = Record<string, unknown>

const tags = Joi.array().items(Joi.string().trim().min(1).max(60)).max(40)
const text = (max: number) => Joi.string().max(max)
const bar = Joi.number().integer().min(0).max(MOST.bars)
const beat = Joi.number().min(1).max(1000)
/** As far as the database counts. */
const version = Joi.number().integer().min(1).max(2_147_483_647)

/** JSON that is kept as it is, of so many signs at most. */
const kept = (schema: Schema, most: number): Schema =>
  schema.custom((value: unknown, helpers: CustomHelpers) =>
    JSON.stringify(value).length <= most
      ? value
      : helpers.message({ custom: `{{#label}} is longer than ${printCount(most)} signs of JSON` }),
  )
const MOST_SETTING = 50_000
const MOST_RULES = 200_000

/** A step of a kept route: what must be there; what a planning told beside it is kept as it is. */
const STEP = Joi.object({
  bar,
  beat,
  beats: Joi.number().positive(),
  chord: text(60),
  overlay: text(200).allow(null).required(),
}).unknown()

/** What a row of each kind holds. */
export const ROWS: Readonly<Record<KindName, ObjectSchema<Fields>>> = {
  charts: Joi.object({
    title: text(200).trim().min(1).required(),
    text: text(100_000).required(),
    tags: tags.default([]),
    overrides: KEPT_OVERRIDES,
  }),
  routes: Joi.object({
    name: text(200).trim().min(1).required(),
    note: text(4000).allow(null, '').default(null),
    chartId: text(60).allow(null).default(null),
    chartVersion: version.allow(null).default(null),
    steps: Joi.array().items(STEP).max(2000).required(),
    rules: kept(Joi.object().unknown(), MOST_RULES).allow(null).default(null),
    inHand: Joi.boolean().default(false),
  }),
  lines: Joi.object({
    name: text(200).trim().min(1).required(),
    chartId: text(60).allow(null).default(null),
    text: text(100_000).allow(null).default(null),
    line: SENT_LINE.required(),
    tags: tags.default([]),
    disputed: Joi.array().items(text(400)).max(400).allow(null).default(null),
    played: NOTES.allow(null).default(null),
    routeId: text(60).allow(null).default(null),
  }),
  ideas: Joi.object({
    overlay: text(200).required(),
    chord: text(60).required(),
    next: text(60).allow(null).default(null),
    note: text(4000).allow(null, '').default(null),
    tags: tags.default([]),
    chartId: text(60).allow(null).default(null),
    bar: bar.allow(null).default(null),
    beat: beat.allow(null).default(null),
  }),
  takes: TAKE_ROW,
  items: ITEM_ROW,
  log: LOG_ROW,
  settings: Joi.object({
    name: text(60).trim().min(1).required(),
    value: kept(Joi.any().invalid(null), MOST_SETTING).required(),
  }),
}

/** What the core must be able to read before a row is stored; throws the problem that says where it cannot. */
export const READABLE: Readonly<Record<KindName, (row: Readonly<Fields>) => void | Promise<void>>> = {
  charts: (row) => {
    orProblem('text', readChart(String(row.text)))
  },
  ideas: (row) => {
    orProblem('overlay', readOverlay(String(row.overlay)))
    orProblem('chord', readChord(String(row.chord)))
    if (row.next !== null) orProblem('next', readChord(String(row.next)))
  },
  routes: ({ steps }) => {
    for (const [i, step] of (steps as { chord?: string; overlay: string | null }[]).entries()) {
      if (step.overlay !== null) orProblem(`steps.${i}.overlay`, readOverlay(step.overlay))
      if (step.chord !== undefined) orProblem(`steps.${i}.chord`, readChord(step.chord))
    }
  },
  lines: async ({ line, text: own }) => {
    await lineFrom(line as SentLine, 'line')
    if (typeof own === 'string') orProblem('text', readChart(own))
  },
  takes: readableTake,
  items: readItem,
  log: () => undefined,
  settings: () => undefined,
}

/** A whole row as it was read, with the version it had; what the server alone decides is passed over. */
export const VERSIONED = Joi.object({
  version: version.required(),
  id: Joi.any().strip(),
  createdAt: Joi.any().strip(),
  updatedAt: Joi.any().strip(),
})

/** A new row may come with an id of its own, so that one that is sent again is not kept twice. */
export const NEW = Joi.object({ id: Joi.string().guid({ separator: '-' }).lowercase() })

/** Changes of one row that are sent under one word, with no other between them, are undone together. */
export const STEP_OF_UNDO = Joi.object<{ step: string | null }>({
  step: Joi.string().max(60).empty('').default(null),
}).unknown()

const LIST = {
  q: Joi.string().allow('').max(200).default(''),
  limit: Joi.number().integer().min(1).max(200).empty('').default(50),
  after: Joi.string().max(2000).empty('').default(null),
}
/** Names of a kind's fields with commas between, as a list without doubles; the rows then hold these alone. */
const fieldsOf = (kind: Kind) => {
  const names = [...kind.fields.map((f) => f.field), ...(kind.told ?? [])]
  return Joi.string()
    .pattern(new RegExp(`^(${names.join('|')})(,(${names.join('|')}))*$`), `some of ${names.join(',')}`)
    .custom((text: string) => [...new Set(text.split(','))])
    .empty('')
    .default(null)
}
const OF_CHART = { chartId: Joi.string().max(60).empty('').default(null) }
const sorts = (all: readonly Sort[]) =>
  Joi.string()
    .valid(...all)
    .empty('')
    .default('-updatedAt')
export const listOf = (kind: Kind): ObjectSchema<ListAsked> =>
  Joi.object<ListAsked>({
    ...LIST,
    sort: sorts(sortsOf(kind)),
    fields: fieldsOf(kind),
    ...(kind.hasChart ? OF_CHART : {}),
  })

export const CHANGE = Joi.object<{ change: string | null }>({
  change: Joi.string()
    .pattern(/^\d{1,18}$/, 'the id of a change')
    .allow(null)
    .default(null),
})
