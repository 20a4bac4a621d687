import Joi from 'joi'
import { ADDS, TERM_NAMES } from '../core/index.ts'

const name = Joi.string().required()
const flag = Joi.boolean().required()
const whole = Joi.number().integer().required()
const percent = Joi.number().integer().min(0).max(100).required()
const listOf = (item: Joi.PartialSchemaMap) => Joi.array().items(Joi.object(item)).required()
const LINE = Joi.object({ notes: listOf({ at: whole, for: whole, pitch: whole }) }).required()
const beat = Joi.number().required()

const DRAFT = {
  line: LINE,
  abc: Joi.string().allow('').required(),
  terms: Joi.object(Object.fromEntries(TERM_NAMES.map((n) => [n, whole]))).required(),
  total: whole,
  joins: listOf({ bar: whole, beat, from: name, to: name, how: name, text: name }),
  groups: listOf({
    from: whole,
    to: whole,
    of: name,
    adds: Joi.string()
      .valid(...ADDS)
      .required(),
  }),
  notes: listOf({
    ...{ n: whole, bar: whole, beat, pitch: whole, name, fade: Joi.number().required(), approach: flag },
    degree: Joi.string().allow(null).required(),
    role: Joi.string().allow(null).required(),
  }),
  accents: Joi.array().items(Joi.number().integer()),
  fingering: Joi.array().items(Joi.object({ string: whole, fret: whole }).allow(null)),
  why: name,
  fade: percent,
  landing: percent.allow(null),
}

/** What making, varying and reusing lines answers. */
export const MAKE_ANSWERS = {
  'lines/make': Joi.object({ lines: listOf(DRAFT) }),
  'lines/vary': Joi.object({
    lines: listOf({ name, line: LINE, why: name, meets: listOf({ n: whole, bar: whole, beat, degree: name }) }),
  }),
  'lines/reuse': Joi.object({
    parts: listOf({ from: whole, to: whole, implies: name }),
    serves: listOf({ family: name, chord: name, startDegree: name, fade: percent, landing: percent, why: name }),
    places: listOf({ bar: whole, beat, chord: name, line: LINE, cut: flag, startDegree: name, fade: percent }),
    keys: listOf({ semitones: whole, line: LINE }),
  }),
  'lines/study': Joi.object({ text: name, line: LINE, title: name }),
} as const
