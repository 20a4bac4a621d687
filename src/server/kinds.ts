import Joi, { type ObjectSchema } from 'joi'
import { readChart, readChord, readOverlay } from '../core/index.ts'
import { orProblem } from './door.ts'

/** One kept kind of row: its columns, what a search looks at, what a write must hold. */
export interface Kind {
  readonly name: KindName
  /** JSON field → column; `jsonb` values travel as JSON text. */
  readonly fields: readonly { readonly field: string; readonly column: string; readonly jsonb?: true }[]
  readonly search: readonly string[]
  readonly title: string
  readonly schema: ObjectSchema<Record<string, unknown>>
  /** What the core must be able to read before the row is stored; throws the problem that says where it cannot. */
  readonly readable: (row: Readonly<Record<string, unknown>>) => void
}

export const KIND_NAMES = ['charts', 'ideas', 'settings'] as const
export type KindName = (typeof KIND_NAMES)[number]

const tags = Joi.array().items(Joi.string().trim().min(1).max(60)).max(40)
const text = (max: number) => Joi.string().max(max)

const same = (...names: readonly string[]) => names.map((field) => ({ field, column: field }))

export const KINDS: Readonly<Record<KindName, Kind>> = {
  charts: {
    name: 'charts',
    fields: same('title', 'text', 'tags'),
    search: ['title', 'text', "array_to_string(tags, ' ')"],
    title: 'title',
    schema: Joi.object({
      title: text(200).trim().min(1).required(),
      text: text(100_000).required(),
      tags: tags.default([]),
    }),
    readable: (row) => {
      orProblem('text', readChart(String(row.text)))
    },
  },
  ideas: {
    name: 'ideas',
    fields: [
      ...same('overlay', 'chord', 'next', 'note', 'tags'),
      { field: 'chartId', column: 'chart_id' },
      ...same('bar', 'beat'),
    ],
    search: ['overlay', 'chord', "coalesce(note, '')", "array_to_string(tags, ' ')"],
    title: 'overlay',
    schema: Joi.object({
      overlay: text(200).required(),
      chord: text(60).required(),
      next: text(60).allow(null).default(null),
      note: text(4000).allow(null, '').default(null),
      tags: tags.default([]),
      chartId: text(60).allow(null).default(null),
      bar: Joi.number().integer().min(1).allow(null).default(null),
      beat: Joi.number().min(1).allow(null).default(null),
    }),
    readable: (row) => {
      orProblem('overlay', readOverlay(String(row.overlay)))
      orProblem('chord', readChord(String(row.chord)))
      if (row.next !== null) orProblem('next', readChord(String(row.next)))
    },
  },
  settings: {
    name: 'settings',
    fields: [...same('name'), { field: 'value', column: 'value', jsonb: true }],
    search: ['name'],
    title: 'name',
    schema: Joi.object({ name: text(60).trim().min(1).required(), value: Joi.any().invalid(null).required() }),
    readable: () => undefined,
  },
}
