import Joi, { type CustomHelpers, type ObjectSchema } from 'joi'
import {
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  FAMILY_NAMES,
  type FamilyName,
  isDegree,
  MOST,
  MOTION_SCOPES,
  type Override,
  RECIPE_NAMES,
  readJob,
  readOverlay,
  readOverrides,
  SCHOOL_CHOICES,
  type School,
  SORTS,
  type Weights,
} from '../core/index.ts'
import type { AuditAsked } from './lines.ts'
import type { Judges } from './rankings.ts'
import type { PlanAsked } from './routes.ts'

const text = (max: number) => Joi.string().allow('').max(max)

/** A list in one parameter: `9,#11`. */
const listed = (allowed: (word: string) => boolean, what: string) =>
  text(200)
    .empty('')
    .default([])
    .custom((value: string, helpers: CustomHelpers) => {
      const words = value
        .split(',')
        .map((w) => w.trim())
        .filter((w) => w !== '')
      const wrong = words.find((w) => !allowed(w))
      return wrong === undefined ? words : helpers.message({ custom: `{{#label}}: ${wrong} is not ${what}` })
    })

/** An object in one parameter, as JSON, laid over the defaults. */
const valued = <T extends object>(defaults: T, schema: ObjectSchema) =>
  text(4000)
    .empty('')
    .default(defaults)
    .custom((value: string, helpers: CustomHelpers) => {
      let read: unknown
      try {
        read = JSON.parse(value)
      } catch {
        return helpers.message({ custom: '{{#label}} is not JSON' })
      }
      const { error, value: checked } = schema.validate(read)
      if (error) return helpers.message({ custom: `{{#label}}: ${error.message.replaceAll('"', '')}` })
      return { ...defaults, ...checked }
    })

const choices = Object.fromEntries(
  Object.entries(SCHOOL_CHOICES).map(([setting, { choices: all }]) => [setting, Joi.string().valid(...all)]),
)
const weight = Joi.number().min(0).max(100)
const WEIGHTS = Joi.object({
  ...Object.fromEntries(Object.keys(DEFAULT_WEIGHTS).map((name) => [name, weight])),
  altered: Joi.object(Object.fromEntries(['#11', 'b13', '#9', 'b9'].map((name) => [name, weight.required()]))),
})

const job = text(60).custom((value: string, helpers: CustomHelpers) =>
  readJob(value) ? value : helpers.message({ custom: `{{#label}}: ${value} is no job` }),
)
const scale = text(200).custom((value: string, helpers: CustomHelpers) => {
  const read = readOverlay(value)
  return read.ok && read.value.material ? value : helpers.message({ custom: `{{#label}}: ${value} is no scale` })
})
/** What the player says about single chords; names are checked, and stay names. */
export const KEPT_OVERRIDES = Joi.array()
  .items(
    Joi.object({
      bar: Joi.number().integer().min(0).max(MOST.bars).required(),
      beat: Joi.number().min(1).max(1000).required(),
      job,
      home: scale,
      split: Joi.number().min(1).max(1000),
    }),
  )
  .max(2000)
  .allow(null)
  .default([])

/** School and weights, wherever something is judged. */
export const JUDGES = {
  school: valued<School>(DEFAULT_SCHOOL, Joi.object(choices)),
  weights: valued<Weights>(DEFAULT_WEIGHTS, WEIGHTS),
}
const PAGE = {
  limit: Joi.number().integer().min(1).max(200).empty('').default(50),
  offset: Joi.number().integer().min(0).max(1_000_000).empty('').default(0),
}
const chord = text(200).required()
const next = text(200).default('')

const chartText = Joi.string().allow('').max(100_000)
/** What a body that speaks of a whole chart has; school and weights are objects there. */
export const WHOLE_CHART = {
  text: chartText.required(),
  key: text(40).default(''),
  overrides: KEPT_OVERRIDES.empty(null).custom(readOverrides),
  school: Joi.object(choices)
    .default(DEFAULT_SCHOOL)
    .custom((value) => ({ ...DEFAULT_SCHOOL, ...value })),
  weights: WEIGHTS.default(DEFAULT_WEIGHTS).custom((value) => ({ ...DEFAULT_WEIGHTS, ...value })),
}
const percent = Joi.number().min(0).max(100)
const degreeList = Joi.array()
  .items(
    text(8).custom((value: string, helpers: CustomHelpers) =>
      isDegree(value) ? value : helpers.message({ custom: `{{#label}}: ${value} is not a degree` }),
    ),
  )
  .max(12)
  .default([])
const stepNumber = Joi.number().integer().min(0).max(MOST.steps)

const tick = Joi.number().integer().min(0).max(MOST.ticks)
export const NOTES = Joi.array()
  .items(
    Joi.object({
      at: tick.required(),
      for: tick.min(1).required(),
      pitch: Joi.alternatives(Joi.number().integer().min(0).max(127), Joi.string().max(8)).required(),
      name: Joi.string().max(3),
    }),
  )
  .max(MOST.notes)
/** A line as a file's text or note by note. */
export const SENT_LINE = Joi.object({
  abc: Joi.string().max(1_000_000),
  musicxml: Joi.string().max(2_000_000),
  notes: NOTES,
}).xor('abc', 'musicxml', 'notes')
const planned = Joi.object({
  bar: Joi.number().required(),
  beat: Joi.number().default(1),
  fade: percent.required(),
}).unknown()

/** Bodies of what is computed by POST. */
export const BODIES = {
  analyse: Joi.object<{ text: string; key: string; overrides: readonly Override[]; school: School }>(WHOLE_CHART),
  audit: Joi.object<AuditAsked>({
    ...WHOLE_CHART,
    line: SENT_LINE.required(),
    also: Joi.object(choices)
      .allow(null)
      .default(null)
      .custom((value) => (value === null ? null : { ...DEFAULT_SCHOOL, ...value })),
    route: Joi.alternatives(
      Joi.array().items(planned).max(MOST.chords),
      Joi.object({ steps: Joi.array().items(planned).max(MOST.chords).required() }).unknown(),
    )
      .allow(null)
      .default(null)
      .custom((value) => (Array.isArray(value) ? value : (value?.steps ?? null))),
  }),
  plan: Joi.object<PlanAsked>({
    ...WHOLE_CHART,
    bars: Joi.array().items(Joi.number().integer().min(0).max(MOST.bars)).length(2).allow(null).default(null),
    families: Joi.array()
      .items(Joi.string().valid(...FAMILY_NAMES))
      .default([]),
    hold: degreeList,
    avoid: degreeList,
    fadeMin: percent.default(0),
    fadeMax: percent.default(100),
    landingMin: percent.default(0),
    rubsFrom: percent.default(0),
    arc: Joi.array().items(percent).max(MOST.steps).allow(null).default(null),
    motion: text(20).default('free'),
    motionScope: Joi.string()
      .valid(...MOTION_SCOPES)
      .default('cadence'),
    loop: Joi.boolean().default(false),
    lock: Joi.array()
      .items(Joi.object({ step: stepNumber.required(), overlay: text(200).required() }))
      .max(2000)
      .default([]),
    ban: Joi.array()
      .items(Joi.object({ step: stepNumber, overlay: text(200), device: text(200) }).or('overlay', 'device'))
      .max(2000)
      .default([]),
    recipe: Joi.string()
      .valid(...RECIPE_NAMES)
      .allow(null)
      .default(null),
    other: chartText.allow(null).default(null),
    shift: Joi.number().integer().min(-11).max(11).default(0),
    eachSeries: Joi.boolean().default(true),
    limit: Joi.number().integer().min(1).max(100).default(20),
  }),
}

export const QUERIES = {
  ask: Joi.object<Judges & { q: string }>({ q: text(2000).required(), ...JUDGES }),
  chord: Joi.object<{ symbol: string }>({ symbol: chord }),
  overlays: Joi.object<
    Judges & {
      chord: string
      next: string
      families: FamilyName[]
      hold: string[]
      avoid: string[]
      fadeMin: number
      fadeMax: number | null
      landingMin: number
      sort: (typeof SORTS)[number]
      limit: number
      offset: number
    }
  >({
    chord,
    next,
    families: listed((w) => FAMILY_NAMES.some((f) => f === w), `a family (${FAMILY_NAMES.join(', ')})`),
    hold: listed(isDegree, 'a degree'),
    avoid: listed(isDegree, 'a degree'),
    fadeMin: Joi.number().min(0).max(100).empty('').default(0),
    fadeMax: Joi.number().min(0).max(100).empty('').default(null),
    landingMin: Joi.number().min(0).max(100).empty('').default(0),
    sort: Joi.string()
      .valid(...SORTS)
      .empty('')
      .default('use'),
    ...PAGE,
    ...JUDGES,
  }),
  pairs: Joi.object<
    Judges & {
      chord: string
      next: string
      qualities: string
      distance: number | null
      exclusive: boolean | null
      limit: number
      offset: number
    }
  >({
    chord,
    next,
    qualities: text(100).default(''),
    distance: Joi.number().integer().min(0).max(6).empty('').default(null),
    exclusive: Joi.boolean().empty('').default(null),
    ...PAGE,
    ...JUDGES,
  }),
  derive: Joi.object<Judges & { scale: string; omit: string; chord: string; next: string }>({
    scale: text(200).required(),
    omit: text(8).default(''),
    chord: text(200).default(''),
    next,
    ...JUDGES,
  }),
  symmetry: Joi.object<{ scale: string }>({ scale: text(200).required() }),
  dominants: Joi.object<{ of: string }>({ of: chord }),
  name: Joi.object<{ notes: string }>({ notes: text(200).required() }),
} as const
