import { stringify } from 'csv-stringify/sync'
import { type Chart, type KeptStep, stepLine } from '../core/index.ts'
import { writeRouteScore } from './route-score.ts'
import type { Reader } from './write-musicxml.ts'

/** The formats a route is written in: each with its file extension and media type. */
export const ROUTE_FORMATS = {
  text: { extension: 'txt', type: 'text/plain; charset=utf-8' },
  musicxml: { extension: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
  csv: { extension: 'csv', type: 'text/csv; charset=utf-8' },
} as const
export type RouteFormat = keyof typeof ROUTE_FORMATS

const COLUMNS = ['bar', 'beat', 'beats', 'chord', 'overlay', 'device', 'fade', 'landing', 'wished', 'carries'] as const

/** A kept route as a file. The score needs the chart; without one it is written as text. */
export const writeRoute = (
  name: string,
  steps: readonly KeptStep[],
  chart: Chart | null,
  format: RouteFormat,
  reader: Reader | null = null,
): string => {
  if (format === 'csv') return stringify([...steps], { header: true, columns: [...COLUMNS], escape_formulas: true })
  if (format === 'musicxml' && chart)
    return writeRouteScore({ ...chart, title: `${chart.title}: ${name}` }, steps, reader)
  const over = chart ? ` over ${chart.title}` : ''
  return `${name}${over}\n\n${steps.map(stepLine).join('\n')}\n`
}
