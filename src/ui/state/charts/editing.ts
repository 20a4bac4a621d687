import { type Checked, checkChart, type KeptOverride, overrideAt } from '../../../core/index.ts'
import { $address } from '../address/address.ts'
import type { ChartRow } from '../kept/row-types.ts'
import { changeRow, holdUnread, standingOf } from '../kept/rows.ts'

/** So long after the last sign a text is sent. In milliseconds. */
const REST_MS = 600

const openRow = (): ChartRow | undefined => standingOf('charts', $address.get()?.chart ?? '')?.row

const titleIn = (text: string, row: ChartRow): string => {
  const title = checkChart(text).chart?.title
  return !title || title === 'Untitled' ? row.title : title
}

/** Takes a text as typed, in concert pitch. What does not read is held in this browser, and nothing kept is touched. */
export const editText = (row: ChartRow, text: string, checked: Checked): void => {
  if (checked.errors.length > 0) return holdUnread('charts', row.id, { text })
  changeRow('charts', row.id, { text, title: titleIn(text, row) }, { rest: REST_MS, join: 'text' })
}

/** Says something about one chord of the open chart; an empty word takes it back. */
export const correct = (bar: number, beat: number, said: Omit<KeptOverride, 'bar' | 'beat'>): void => {
  const row = openRow()
  if (!row) return
  const before = overrideAt(row.overrides ?? [], bar, beat)
  const { bar: _, beat: __, ...words } = { ...before, ...said, bar, beat }
  const left = Object.fromEntries(
    Object.entries(words).filter(([, word]) => word !== undefined && word !== '' && word !== 0),
  )
  const others = (row.overrides ?? []).filter((o) => o !== before)
  const overrides = Object.keys(left).length > 0 ? [...others, { bar, beat, ...left }] : others
  changeRow('charts', row.id, { overrides })
}

export const retag = (row: ChartRow, tags: readonly string[]): void => changeRow('charts', row.id, { tags })
