import { stringify } from 'csv-stringify/sync'
import { beatTicks, type Chart, type KeptStep, stepLine } from '../core/index.ts'
import { playedOut, writeMusicXml } from './write-musicxml.ts'

/** The formats a route is written in: each with its file extension and media type. */
export const ROUTE_FORMATS = {
  text: { extension: 'txt', type: 'text/plain; charset=utf-8' },
  musicxml: { extension: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
  csv: { extension: 'csv', type: 'text/csv; charset=utf-8' },
} as const
export type RouteFormat = keyof typeof ROUTE_FORMATS

const COLUMNS = ['bar', 'beat', 'beats', 'chord', 'overlay', 'device', 'fade', 'landing', 'wished', 'carries'] as const

/** The chart as it is played, with each step's overlay as words above its chord. */
const overlaysAbove = (chart: Chart, steps: readonly KeptStep[]): string => {
  const beat = beatTicks(chart.metre)
  return writeMusicXml(playedOut(chart), (i) =>
    steps
      .filter((s) => s.bar === chart.bars[i]?.number && !s.carries)
      .flatMap(({ beat: from, overlay }) =>
        overlay === null ? [] : [{ at: Math.round(((from ?? 1) - 1) * beat), text: overlay }],
      ),
  )
}

/** A kept route as a file. The score needs the chart; without one it is written as text. */
export const writeRoute = (
  name: string,
  steps: readonly KeptStep[],
  chart: Chart | null,
  format: RouteFormat,
): string => {
  if (format === 'csv') return stringify([...steps], { header: true, columns: [...COLUMNS] })
  if (format === 'musicxml' && chart) return overlaysAbove({ ...chart, title: `${chart.title}: ${name}` }, steps)
  const over = chart ? ` over ${chart.title}` : ''
  return `${name}${over}\n\n${steps.map(stepLine).join('\n')}\n`
}
