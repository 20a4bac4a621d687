import { stringify } from 'csv-stringify/sync'

const COLUMNS = ['at', 'kind', 'item', 'key', 'tempo', 'grade', 'minutes', 'topic', 'right', 'given', 'text'] as const
export type LogLine = Readonly<Record<(typeof COLUMNS)[number], string | number | null>>

/** The log as CSV with a head; a cell that a table program would read as a formula is kept from that. */
export const writeLog = (lines: readonly LogLine[]): string =>
  stringify([...lines], { header: true, columns: [...COLUMNS], escape_formulas: true })
