import Joi, { type CustomHelpers } from 'joi'
import {
  APPROACH_NAMES,
  type ApproachName,
  BEFORES,
  type Before,
  COMPASS_IDS,
  type CompassId,
  INVERSION_PATHS,
  type InversionPath,
  isDegree,
  KEY_ORDER_NAMES,
  type KeyOrder,
  LAST_FRET,
  type LandingWay,
  LINE_PATHS,
  type LinePath,
  MOST,
  type Override,
  type Rhythm,
  readRest,
  type School,
  TRIAD_ORDERS,
  type TriadOrder,
  VALUE_NAMES,
  type ValueName,
  type Weights,
} from '../core/index.ts'
import { SENT_LINE, WHOLE_CHART } from './compute-schemas.ts'
import type { SentLine } from './lines.ts'

/** What a line is laid out from: overlays by bar and beat. */
export interface LaidAsked {
  readonly bar: number
  readonly beat: number
  readonly overlay: string | null
}

export type PlanOfLine =
  | 'home'
  | 'chord'
  | { readonly overlays: readonly LaidAsked[] }
  | { readonly route: readonly LaidAsked[] | { readonly steps: readonly LaidAsked[] } }
  | { readonly pair: string; readonly pairs?: readonly LaidAsked[] }
  | { readonly pairs: readonly LaidAsked[] }

const ACCENTS = ['none', 'on 2 and 4', 'group starts', 'off beats'] as const
export type Accents = (typeof ACCENTS)[number]

/** How a landing is asked for, in the words of an exit too. */
export const LANDING_WORDS: Readonly<Record<string, LandingWay>> = {
  any: 'any',
  held: 'held',
  enclosure: 'enclosure',
  'half step': 'half step below',
  'half step below': 'half step below',
  'half step up': 'half step below',
  'half step above': 'half step above',
  'half step down': 'half step above',
  'whole step up': 'whole step below',
  'whole step down': 'whole step above',
  'whole step below': 'whole step below',
  'whole step above': 'whole step above',
}

/** What `POST /lines/make` takes. */
export interface MakeAsked {
  readonly text: string
  readonly key: string
  readonly overrides: readonly Override[]
  readonly school: School
  readonly weights: Weights
  readonly bars: readonly [number, number] | null
  readonly plan: PlanOfLine
  readonly figure: string
  readonly order: TriadOrder
  readonly inversion: InversionPath
  readonly approach: ApproachName
  readonly before: Before
  readonly takes: 'time before' | 'its own place'
  readonly rhythm: {
    readonly value: ValueName
    readonly start: number
    readonly rest: Rhythm['rest']
    accents: Accents
  }
  readonly path: LinePath | null
  readonly wave: number
  readonly landing: {
    readonly degree: string
    readonly bar: number
    readonly beat: number
    readonly how: string
  } | null
  readonly range: readonly [number, number] | null
  /** An instrument by name: its compass is the range where none is given. */
  readonly for: CompassId | ''
  readonly strings: string
  /** A window of frets, and whether open strings may be used beside it. */
  readonly frets: readonly [number, number]
  readonly open: boolean
  readonly limit: number
}

const said = <T extends string>(words: readonly T[], usual: T) =>
  Joi.string()
    .valid(...words)
    .default(usual)
const bar = Joi.number().integer().min(0).max(MOST.bars)
const beat = Joi.number().min(-64).max(64)
const laid = Joi.object({
  bar: bar.required(),
  beat: beat.default(1),
  overlay: Joi.string().max(200).allow(null).required(),
}).unknown()
const laidList = Joi.array().items(laid).max(MOST.chords)
const pitch = Joi.number().integer().min(0).max(127)
const RANGE = Joi.array()
  .items(pitch)
  .length(2)
  .custom((value: readonly [number, number], helpers: CustomHelpers) =>
    value[0] < value[1] ? value : helpers.message({ custom: '{{#label}} begins above its end' }),
  )

const rhythm = Joi.object({
  value: said(VALUE_NAMES, '1/8'),
  start: beat.default(1),
  rest: Joi.string()
    .max(40)
    .allow(null, '')
    .default(null)
    .custom((value: string | null, helpers: CustomHelpers) => {
      if (!value) return null
      return readRest(value) ?? helpers.message({ custom: '{{#label}} is not understood: play 5 rest 1' })
    }),
  accents: said(ACCENTS, 'none'),
})

const plan = Joi.alternatives()
  .try(
    Joi.string().valid('home', 'chord'),
    Joi.object({ overlays: laidList.required() }),
    Joi.object({ route: Joi.alternatives(laidList, Joi.object({ steps: laidList.required() }).unknown()).required() }),
    Joi.object({ pair: Joi.string().max(200), pairs: laidList }).or('pair', 'pairs'),
  )
  .required()

const landing = Joi.object({
  degree: Joi.string()
    .max(8)
    .required()
    .custom((value: string, helpers: CustomHelpers) =>
      isDegree(value) ? value : helpers.message({ custom: `{{#label}}: ${value} is not a degree` }),
    ),
  bar: bar.required(),
  beat: beat.default(1),
  how: said(Object.keys(LANDING_WORDS), 'any'),
})

export const MAKE_BODY = Joi.object<MakeAsked>({
  ...WHOLE_CHART,
  bars: Joi.array().items(bar).length(2).allow(null).default(null),
  plan,
  figure: Joi.string().allow('').max(200).required(),
  order: said(TRIAD_ORDERS, 'alternate'),
  inversion: said(INVERSION_PATHS, 'climb'),
  approach: said(APPROACH_NAMES, 'none'),
  before: said(BEFORES, 'group'),
  takes: said(['time before', 'its own place'], 'time before'),
  rhythm: rhythm.default({ value: '1/8', start: 1, rest: null, accents: 'none' }),
  path: Joi.string()
    .valid(...LINE_PATHS)
    .allow(null)
    .default(null),
  wave: Joi.number().integer().min(1).max(32).default(4),
  landing: landing.allow(null).default(null),
  range: RANGE.allow(null).default(null),
  for: Joi.string()
    .allow('')
    .valid(...COMPASS_IDS)
    .default(''),
  strings: Joi.string().allow('').max(200).default(''),
  frets: Joi.array().items(Joi.number().integer().min(0).max(LAST_FRET)).length(2).default([0, LAST_FRET]),
  open: Joi.boolean().default(true),
  limit: Joi.number().integer().min(1).max(50).default(8),
})

export const VARY_NAMES = [
  ...(['rhythm', 'four ways', 'displace', 'octave', 'backwards', 'inversion', 'sequence'] as const),
  ...(['carry', 'approach', 'cut', 'targets', 'order'] as const),
] as const

/** What `POST /lines/vary` takes; `from` and `to` are notes counted from 1. */
export interface VaryAsked extends Judged {
  readonly text: string
  readonly line: SentLine
  readonly from: number | null
  readonly to: number | null
  readonly by: (typeof VARY_NAMES)[number]
  readonly value: ValueName
  readonly start: number | null
  readonly ticks: number
  readonly semitones: number | null
  readonly steps: number | null
  readonly times: number
  readonly overlay: string
  readonly approach: ApproachName
  readonly order: string
}
interface Judged {
  readonly key: string
  readonly overrides: readonly Override[]
  readonly school: School
  readonly weights: Weights
}
interface Keyed {
  readonly range: readonly [number, number]
  readonly order: KeyOrder
  readonly seed: number
}

/** What `POST /lines/reuse` takes: a lick, the chord it was played on, perhaps a chart to find places in. */
export interface ReuseAsked extends Judged, Keyed {
  readonly line: SentLine
  readonly over: string
  readonly text: string
}

/** What `POST /lines/study` takes: a lick over its chord, or what is to be made. */
export interface StudyAsked extends Keyed {
  /** In words (`G & Am over Cmaj7`), as what is to be made, or as a line. */
  readonly of: string | MakeAsked | { readonly line: SentLine; readonly over: string; readonly name?: string }
  /** A chart to go through, where what is to be made names none. */
  readonly text: string
  /** How many of the twelve. */
  readonly keys: number
}

const noteNumber = Joi.number().integer().min(1).max(MOST.notes).allow(null).default(null)
const step = Joi.number().integer().min(-24).max(24).allow(null).default(null)

export const VARY_BODY = Joi.object<VaryAsked>({
  ...WHOLE_CHART,
  line: SENT_LINE.required(),
  from: noteNumber,
  to: noteNumber,
  by: Joi.string()
    .valid(...VARY_NAMES)
    .required(),
  value: said(VALUE_NAMES, '1/8'),
  start: beat.allow(null).default(null),
  ticks: Joi.number().integer().min(-MOST.ticks).max(MOST.ticks).default(480),
  semitones: step,
  steps: step,
  times: Joi.number().integer().min(1).max(16).default(1),
  overlay: Joi.string().allow('').max(200).default(''),
  approach: said(APPROACH_NAMES, 'half below'),
  order: Joi.string().allow('').max(40).default(''),
})

const KEYED = {
  range: RANGE.default([40, 88]),
  order: said(KEY_ORDER_NAMES, 'half steps'),
  seed: Joi.number()
    .integer()
    .min(0)
    .max(2 ** 31)
    .default(1),
}

export const REUSE_BODY = Joi.object<ReuseAsked>({
  ...WHOLE_CHART,
  ...KEYED,
  text: WHOLE_CHART.text.optional().default(''),
  line: SENT_LINE.required(),
  over: Joi.string().max(2000).required(),
})

export const STUDY_BODY = Joi.object<StudyAsked>({
  ...KEYED,
  text: WHOLE_CHART.text.optional().default(''),
  keys: Joi.number().integer().min(1).max(12).default(12),
  of: Joi.alternatives()
    .try(
      Joi.string().min(1).max(2000),
      MAKE_BODY.fork('text', (s) => s.optional().default('')),
      Joi.object({ line: SENT_LINE.required(), over: Joi.string().max(2000).required(), name: Joi.string().max(200) }),
    )
    .required(),
})
