/** The formats a chart is written in: each with its file extension and media type. */
export const CHART_FORMATS = {
  text: { extension: 'txt', type: 'text/plain; charset=utf-8' },
  musicxml: { extension: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
  abc: { extension: 'abc', type: 'text/vnd.abc; charset=utf-8' },
} as const
export type ChartFormat = keyof typeof CHART_FORMATS
