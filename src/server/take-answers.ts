import Joi, { type ObjectSchema } from 'joi'
import { TAKE_ABOUTS } from '../core/index.ts'

const number = Joi.number().required()
const whole = Joi.number().integer().required()
const text = Joi.string().required()
const share = Joi.number().min(0).max(1).allow(null).required()
const list = (item: Joi.PartialSchemaMap) => Joi.array().items(Joi.object(item)).required()

/** What the reading of a take answers, around the audit of its line. */
export const takeAnswers = (audit: ObjectSchema) =>
  ({
    'takes/read': Joi.object({
      audit: audit.required(),
      plan: Joi.object({
        steps: list({
          ...{ bar: whole, beat: number, chord: text, overlay: Joi.string().allow(null).required(), chorus: whole },
          ...{ inPlan: share, inHome: share, fade: Joi.number().allow(null).required(), wished: number },
        }),
      }).required(),
      timing: Joi.object({
        ...{ mean: number, spread: number, swing: Joi.number().allow(null).required() },
        notes: list({ at: number, written: number, off: number }),
      }).required(),
      sentences: list({
        text,
        bars: Joi.array().items(whole).length(2).required(),
        tone: Joi.string().valid('good', 'plain', 'fault').required(),
        about: Joi.string()
          .valid(...TAKE_ABOUTS)
          .required(),
      }),
    }),
    'takes/recover': Joi.object({ takes: Joi.array().items(Joi.object().unknown()).required() }),
  }) as const
