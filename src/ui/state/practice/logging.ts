import { atom, computed } from 'nanostores'
import type { Answered, Grade } from '../../../core/index.ts'
import { sayKept } from '../kept/kept.ts'
import { fetchPage } from '../kept/lists.ts'
import type { LogRow } from '../kept/row-types.ts'
import { $rows, addRow, adoptRows, changeRow, removeRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'

const lastFirst = (a: LogRow, b: LogRow): number => (b.at < a.at ? -1 : b.at > a.at ? 1 : 0)

/** The entries this page knows of, the last first. */
export const $entries = computed($rows.log, (rows) =>
  Object.values(rows)
    .map((s) => s.row)
    .sort(lastFirst),
)
/** Where the list goes on; null at its end, undefined before it was begun. */
export const $entriesNext = atom<string | null | undefined>(undefined)
export const $entriesFailed = atom<string | null>(null)

/** Fetches the next of the log, the last entries first. */
export const moreEntries = async (): Promise<void> => {
  const after = $entriesNext.get()
  if (after === null) return
  const page = await fetchPage('log', { sort: '-at', limit: '100', ...(after === undefined ? {} : { after }) })
  if (!page.ok) return $entriesFailed.set(page.detail)
  $entriesFailed.set(null)
  adoptRows('log', page.value.items)
  $entriesNext.set(page.value.next)
}

const EMPTY = { itemId: null, key: null, tempo: null, grade: null, minutes: null, text: null, answered: null } as const

/** A graded round; gives its id. */
export const logRound = (of: {
  readonly itemId: string
  readonly key: string
  readonly tempo: number
  readonly grade: Grade
  readonly minutes: number
}): string => addRow('log', { ...EMPTY, at: new Date().toISOString(), kind: 'round', ...of })

export const logAnswer = (itemId: string | null, answered: Answered, minutes: number): string =>
  addRow('log', {
    ...{ ...EMPTY, at: new Date().toISOString(), kind: 'quiz', itemId, key: answered.topic, minutes, answered },
    grade: answered.given === answered.right ? 'clean' : 'again',
  })

export const logWord = (text: string, at: string): void => {
  void sayKept('log', addRow('log', { ...EMPTY, at, kind: 'word', text }))
}

export const changeEntry = (row: LogRow, change: Partial<LogRow>): void => changeRow('log', row.id, change)

/** Takes an entry back without a word. */
export const dropEntry = (id: string): void => void removeRow('log', id)

export const removeEntry = async (id: string): Promise<void> => {
  const gone = await removeRow('log', id)
  say(gone.ok ? 'Removed from the log.' : `Not removed: ${gone.detail}`, gone.ok ? 'undo' : null)
}
