import Joi, { type CustomHelpers } from 'joi'
import { MOST, readChart, readOverlay } from '../core/index.ts'
import { KEPT_OVERRIDES, WHOLE_CHART } from './compute-schemas.ts'
import type { TakeAsked } from './takes.ts'
import { orProblem } from './texts.ts'

type Fields = Readonly<Record<string, unknown>>

/** Notes of a take: an hour of fast eighths. */
export const MOST_PLAYED = 40_000
/** Early notes begin before the first bar, by a bar at most. */
const EARLIEST = -16 * 960

/** An hour at the fastest tempo, and what still rings then. */
const LATEST = 61 * 400 * 960

const moment = Joi.number().min(EARLIEST).max(LATEST)
const PLAYED = Joi.array()
  .items(
    Joi.object({
      at: moment.required(),
      for: Joi.number().greater(0).max(LATEST).required(),
      pitch: Joi.alternatives(Joi.number().integer().min(0).max(127), Joi.string().max(8)).required(),
      velocity: Joi.number().min(0).max(127),
    }),
  )
  .max(MOST_PLAYED)

const bar = Joi.number().integer().min(0).max(MOST.bars)
/** What was to be played: from each place on an overlay, or the home scale. */
const PLAN = Joi.object({
  overlays: Joi.array()
    .items(
      Joi.object({
        bar: bar.required(),
        beat: Joi.number().min(1).max(1000).default(1),
        overlay: Joi.string().max(200).allow(null).required(),
        wished: Joi.number().min(0).max(100).allow(null),
      }).unknown(),
    )
    .max(MOST.chords)
    .required(),
})
  .allow(null)
  .default(null)

/** The bars that were looped, first and last. */
const BARS = Joi.array()
  .items(bar)
  .length(2)
  .allow(null)
  .default(null)
  .custom((value: readonly [number, number] | null, helpers: CustomHelpers) =>
    value === null || value[0] <= value[1] ? value : helpers.message({ custom: '{{#label}} ends before it begins' }),
  )

const tempo = Joi.number().min(20).max(400).required()
/** Ms by which an instrument arrives late. */
const delay = Joi.number().min(-2000).max(2000).default(0)

export const TAKE_BODY = Joi.object<TakeAsked>({
  ...WHOLE_CHART,
  ...{ notes: PLAYED.required(), plan: PLAN, bars: BARS, tempo, offset: delay },
})

const text = (max: number) => Joi.string().max(max)
const id = text(60).allow(null).default(null)

/** What a take holds. What `sound` tells is the server's own word. */
export const TAKE_ROW = Joi.object<Record<string, unknown>>({
  name: text(200).trim().min(1).required(),
  ...{ chartId: id, itemId: id, key: id },
  text: text(100_000).required(),
  overrides: KEPT_OVERRIDES,
  ...{ bars: BARS, plan: PLAN, tempo, offset: delay },
  source: text(60).trim().min(1).required(),
  notes: PLAYED.required(),
  soundFrom: Joi.number().min(-600_000).max(600_000).default(0),
  sound: Joi.any().strip(),
  disputed: Joi.array().items(text(400)).max(400).allow(null).default(null),
  open: Joi.boolean().default(false),
  tags: Joi.array().items(text(60).trim().min(1)).max(40).default([]),
})

/** What the core must be able to read of a take. */
export const readableTake = (row: Fields): void => {
  orProblem('text', readChart(String(row.text)))
  const plan = row.plan as { readonly overlays: readonly { readonly overlay: string | null }[] } | null
  for (const [i, { overlay }] of (plan?.overlays ?? []).entries())
    if (overlay !== null) orProblem(`plan.overlays.${i}.overlay`, readOverlay(overlay))
}

/** The notes of one part of a take that is being played, by its number. */
export const PART = Joi.object<{ n: number; notes: readonly object[] }>({
  n: Joi.number().integer().min(0).max(100_000).required(),
  notes: PLAYED.required(),
})

/** From which byte on a sound is written. */
export const SOUND_FROM = Joi.object<{ from: number }>({
  from: Joi.number().integer().min(0).max(2_147_483_647).empty('').default(0),
})
