import Joi, { type ObjectSchema } from 'joi'
import { MAKE_ANSWERS } from './make-answers.ts'
import { PRACTICE_ANSWERS } from './practice.ts'
import { QUIZ_ANSWER } from './quiz.ts'
import { takeAnswers } from './take-answers.ts'

/** What each answer holds, no field more: the same that `openapi.json` publishes. */
const name = Joi.string().required()
const names = Joi.array().items(Joi.string()).required()
const flag = Joi.boolean().required()
const whole = Joi.number().integer().required()
const percent = Joi.number().integer().min(0).max(100).required()
const maybe = (schema: Joi.Schema) => schema.allow(null).required()

const ROLES = ['chord', 'extension', 'altered', 'suspension', 'outside'] as const
const HOWS = ['held', 'half step down', 'half step up', 'whole step down', 'whole step up'] as const

const EXIT = Joi.object({
  to: name,
  degree: name,
  how: Joi.string()
    .valid(...HOWS)
    .required(),
  strength: Joi.number().min(0).max(1).required(),
})

const NOTE = {
  name,
  heard: name,
  degree: name,
  role: Joi.string()
    .valid(...ROLES)
    .required(),
  inHome: flag,
  stated: flag,
  denied: flag,
  root: flag,
  guide: flag,
  rub: flag,
  keptBack: flag,
  fade: Joi.number().min(0).max(100).required(),
  blue: Joi.boolean(),
}

const reading = (note: ObjectSchema) => ({
  question: Joi.object({ overlay: name, chord: name, next: maybe(Joi.string()), job: maybe(Joi.string()) }).required(),
  home: Joi.object({ scale: name, reason: name, others: names }).required(),
  notes: Joi.array().items(note).required(),
  fade: percent,
  roughness: percent,
  counts: Joi.object(Object.fromEntries(ROLES.map((role) => [role, whole]))).required(),
  worst: Joi.object({ name, degree: name, fade: Joi.number().min(0).max(100).required() }).required(),
  keyDistance: maybe(Joi.number().integer().min(0).max(6)),
  keyNearest: flag,
  commonTones: names,
  guidesHeld: whole,
  statesChord: flag,
  landing: maybe(Joi.number().integer().min(0).max(100)),
  noExit: names,
  sounding: maybe(Joi.string()),
  mends: Joi.array()
    .items(Joi.object({ change: Joi.object({ from: name, to: name }).required(), becomes: name, fade: percent }))
    .required(),
  same: names,
  groups: Joi.array().items(Joi.object({ name, degrees: names })),
  exclusive: Joi.boolean(),
  sentence: name,
})

const WHOLE_READING = reading(Joi.object({ ...NOTE, exits: Joi.array().items(EXIT).required() }))
const PAGE = {
  total: whole,
  items: Joi.array()
    .items(Joi.object({ ...reading(Joi.object(NOTE)), use: Joi.number().integer().required(), classic: Joi.string() }))
    .required(),
}
const CHORD = {
  symbol: name,
  root: maybe(Joi.string()),
  bass: maybe(Joi.string()),
  family: maybe(Joi.string()),
  tones: Joi.array()
    .items(Joi.object({ name, degree: name, stated: flag }))
    .required(),
  guides: names,
}
const MATERIAL = {
  scale: name,
  notes: names,
  periodSemitones: whole,
  distinct: whole,
  triads: names,
  sevenths: names,
  polychords: names,
}
/** A chart's bars, each chord with its beats and its job, and whatever else an answer says of it. */
const bars = (more: Joi.SchemaMap = {}) =>
  Joi.array()
    .items(
      Joi.object({
        number: whole,
        section: maybe(Joi.string()),
        metre: Joi.string(),
        chords: Joi.array()
          .items(
            Joi.object({
              symbol: name,
              beat: Joi.number().required(),
              beats: Joi.number().required(),
              job: maybe(Joi.string()),
              ...more,
            }),
          )
          .required(),
      }),
    )
    .required()
const SKETCH = {
  text: name,
  key: maybe(Joi.string()),
  bars: bars(),
}
const ANALYSIS = {
  key: name,
  bars: bars({
    key: maybe(Joi.string()),
    degree: maybe(Joi.string()),
    target: maybe(Joi.string()),
    resolves: flag,
    home: maybe(Joi.string()),
    reason: Joi.string().allow('').required(),
    dominants: Joi.array().items(Joi.string()),
  }),
  chains: Joi.array()
    .items(Joi.object({ kind: name, fromBar: whole, toBar: whole, target: maybe(Joi.string()) }))
    .required(),
  stretches: Joi.array()
    .items(
      Joi.object({
        scale: name,
        fromBar: whole,
        toBar: whole,
        joins: Joi.array()
          .items(Joi.object({ from: name, to: name }))
          .required(),
      }),
    )
    .required(),
}
const kind = (of: string) => Joi.string().valid(of).required()
const groups = Joi.array()
  .items(Joi.object({ notes: names, triad: maybe(Joi.string()), inversion: maybe(Joi.number().integer()) }))
  .required()
const OMISSION = Joi.object({ degree: name, note: name, six: names, groups, fade: percent })

const TERMS = Joi.object({ arcMiss: whole, motion: whole, landingMiss: whole, repeats: whole, rubs: whole }).required()
const SEAM = Joi.object({
  motion: Joi.number().min(0).required(),
  common: names,
  halfSteps: Joi.array().items(Joi.array().items(Joi.string()).length(2)).required(),
  direction: Joi.number().valid(-1, 0, 1).required(),
})
const STEP = Joi.object({
  bar: whole,
  beat: Joi.number().min(1).required(),
  beats: Joi.number().positive().required(),
  chord: name,
  overlay: name,
  device: name,
  fade: percent,
  landing: maybe(Joi.number().integer().min(0).max(100)),
  wished: maybe(Joi.number().min(0).max(100)),
  carries: flag,
  terms: TERMS,
  seam: maybe(SEAM),
  why: name,
})
const ROUTE = Joi.object({
  title: name,
  total: whole,
  terms: TERMS,
  why: names,
  steps: Joi.array().items(STEP).required(),
})

const SPAN = { from: whole, to: whole }
const VERDICT = Joi.array().items(
  Joi.object({
    text: name,
    notes: Joi.array().items(Joi.number().integer()).required(),
    tone: Joi.string().valid('good', 'plain', 'fault').required(),
  }),
)
const LANDING = Joi.object({
  how: Joi.string()
    .valid(...HOWS, 'enclosure', 'cut')
    .required(),
  degree: maybe(Joi.string()),
  bar: whole,
  beat: Joi.number().required(),
  afterBeats: Joi.number().min(0).required(),
})
const listOf = (item: Joi.PartialSchemaMap) => Joi.array().items(Joi.object(item)).required()
const AUDIT = {
  notes: listOf({
    n: whole,
    bar: whole,
    beat: Joi.number().required(),
    strong: flag,
    pitch: whole,
    name,
    at: whole,
    for: whole,
    degree: maybe(Joi.string()),
    role: maybe(Joi.string().valid(...ROLES)),
    fade: Joi.number().min(0).max(100).required(),
    job: name,
    planned: Joi.number().allow(null),
    blue: Joi.boolean(),
  }),
  cells: listOf({ ...SPAN, overlay: maybe(Joi.string()), how: name }),
  sequences: listOf({ ...SPAN, length: whole, by: whole, times: whole, tonal: flag }),
  groupings: listOf({ ...SPAN, length: whole, meetsAfterBeats: Joi.number().required() }),
  readings: listOf({ ...SPAN, heard: name, why: name, score: percent }),
  stretches: listOf({ ...SPAN, peak: Joi.number().required(), mean: percent, landing: maybe(LANDING) }),
  verdict: VERDICT.required(),
  also: VERDICT,
}

export const ANSWERS = {
  ask: Joi.alternatives().try(
    Joi.object({ kind: kind('reading'), ...WHOLE_READING }),
    Joi.object({ kind: kind('material'), ...MATERIAL }),
    Joi.object({ kind: kind('chord'), ...CHORD }),
    Joi.object({ kind: kind('chart'), ...SKETCH }),
    Joi.object({ kind: kind('pairs'), ...PAGE }),
    Joi.object({ kind: kind('overlays'), ...PAGE }),
  ),
  chord: Joi.object(CHORD),
  overlays: Joi.object(PAGE),
  pairs: Joi.object(PAGE),
  'pairs/derive': Joi.object({
    scale: name,
    notes: names,
    dropped: maybe(Joi.object({ degree: name, note: name, why: name })),
    six: names,
    groups,
    otherSplits: Joi.array().items(Joi.array().items(Joi.string())).required(),
    allOmissions: Joi.array().items(OMISSION).required(),
  }),
  symmetry: Joi.object(MATERIAL),
  dominants: Joi.object({
    dominants: names,
    as: Joi.array()
      .items(Joi.object({ dominant: name, bassDegree: name }))
      .required(),
  }),
  name: Joi.object({ equal: names, within: names, holds: names }),
  'charts/analyse': Joi.object(ANALYSIS),
  'routes/plan': Joi.object({
    routes: Joi.array().items(ROUTE).required(),
    impossible: maybe(Joi.object({ steps: Joi.array().items(Joi.number().integer()).required(), loosen: names })),
  }),
  'lines/audit': Joi.object(AUDIT),
  ...takeAnswers(Joi.object(AUDIT)),
  ...MAKE_ANSWERS,
  quiz: QUIZ_ANSWER,
  ...PRACTICE_ANSWERS,
  health: Joi.object({ status: kind('ok'), version: name, schema: whole }),
} as const

export const PROBLEM = Joi.object({
  type: name,
  title: name,
  status: whole,
  code: name,
  detail: name,
  errors: Joi.array()
    .items(
      Joi.object({
        path: Joi.string().allow('').required(),
        message: name,
        at: Joi.number().integer().min(0),
        found: Joi.string().allow('').required(),
        expected: names,
      }),
    )
    .required(),
  current: Joi.any(),
})
