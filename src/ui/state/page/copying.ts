import { toGlyphs } from '../../../core/index.ts'
import { say } from './notices.ts'

/** A picture as text: a line of heads and lines of cells. */
export interface TextTable {
  readonly title: string
  readonly heads: readonly string[]
  readonly rows: readonly (readonly string[])[]
}

export const tableText = ({ title, heads, rows }: TextTable): string =>
  [title, heads.join('\t'), ...rows.map((r) => r.join('\t'))].map(toGlyphs).join('\n')

export const copyTable = async (table: TextTable): Promise<void> =>
  navigator.clipboard.writeText(tableText(table)).then(
    () => say('Copied as text.'),
    () => say('This browser did not let it be copied.'),
  )
