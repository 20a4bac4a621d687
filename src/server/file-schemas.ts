import Joi from 'joi'
import { FEELS, GRIDS, type Grid, INSTRUMENTS, type InstrumentId, type School } from '../core/index.ts'
import { CHART_FORMATS, type ChartFormat } from '../formats/chart-formats.ts'
import { LINE_FORMATS, type LineFormat } from '../formats/line-write.ts'
import { ROUTE_FORMATS, type RouteFormat } from '../formats/routes.ts'
import type { Manner } from '../formats/write-midi.ts'
import { SCORE_CLEFS, type ScoreClef } from '../formats/write-musicxml.ts'
import { JUDGES } from './compute-schemas.ts'

const MANNER = {
  feel: Joi.string()
    .valid(...FEELS)
    .empty('')
    .default(null),
  tempo: Joi.number().integer().min(30).max(320).empty('').default(null),
  school: JUDGES.school,
}

/** What is asked of a row written as a file, and of a file that is read. */
export const FILE_QUERIES = {
  band: Joi.object<Manner & { school: School }>(MANNER),
  export: Joi.object<{ as: ChartFormat }>({
    as: Joi.string()
      .valid(...(Object.keys(CHART_FORMATS) as ChartFormat[]))
      .default('text'),
  }),
  exportRoute: Joi.object<{ as: RouteFormat; for: InstrumentId; clef: ScoreClef }>({
    as: Joi.string()
      .valid(...(Object.keys(ROUTE_FORMATS) as RouteFormat[]))
      .default('text'),
    for: Joi.string()
      .valid(...INSTRUMENTS.map((i) => i.id))
      .default('concert'),
    clef: Joi.string()
      .valid(...(Object.keys(SCORE_CLEFS) as ScoreClef[]))
      .default('treble'),
  }),
  import: Joi.object<{ tune: number | null }>({
    tune: Joi.number().integer().min(0).max(10_000).empty('').default(null),
  }),
  readLine: Joi.object<{ voice: number | null; grid: Grid }>({
    voice: Joi.number().integer().min(0).max(10_000).empty('').default(null),
    grid: Joi.string()
      .valid(...GRIDS)
      .default('nearest'),
  }),
  exportLine: Joi.object<{ as: LineFormat; band: boolean; school: School } & Manner>({
    ...MANNER,
    band: Joi.boolean().default(false),
    as: Joi.string()
      .valid(...(Object.keys(LINE_FORMATS) as LineFormat[]))
      .default('musicxml'),
  }),
  exportTake: Joi.object<{ as: 'midi' | 'musicxml'; school: School }>({
    as: Joi.string().valid('midi', 'musicxml').default('midi'),
    school: JUDGES.school,
  }),
} as const
