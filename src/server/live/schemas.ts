import Joi from 'joi'

/** Where a page plays: the bar and the beat of a chart, or that it stopped. `page` tells one page from another. */
export const PLAYING_BODY = Joi.object({
  page: Joi.string().min(1).max(64).required(),
  chartId: Joi.string().max(64).allow(null).required(),
  bar: Joi.number().integer().min(1).max(100_000).required(),
  beat: Joi.number().min(1).max(1000).required(),
  playing: Joi.boolean().strict().required(),
})
export const TOLD = Joi.object({ told: Joi.boolean().required() })
