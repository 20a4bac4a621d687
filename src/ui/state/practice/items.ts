import { atom, computed } from 'nanostores'
import { DAY_MS, type ItemOf, type Rest, toGlyphs, USUAL_LADDER } from '../../../core/index.ts'
import { fetchPage, type Page } from '../kept/lists.ts'
import type { Answer } from '../kept/request.ts'
import type { ItemRow } from '../kept/row-types.ts'
import { $rows, addRow, adoptRows, changeRow, flushRow, removeRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'

const firstMade = (a: ItemRow, b: ItemRow): number =>
  a.createdAt < b.createdAt ? -1 : a.createdAt > b.createdAt ? 1 : 0

/** The items this page knows of, in the order they were made. */
export const $items = computed($rows.items, (rows) =>
  Object.values(rows)
    .map((s) => s.row)
    .sort(firstMade),
)

/** How the fetching of all items goes. */
export const $itemsFetched = atom<'loading' | 'ready' | 'failed' | null>(null)

const fetchAll = async (): Promise<void> => {
  if ($itemsFetched.get() === null) $itemsFetched.set('loading')
  let after: string | null = null
  do {
    const page: Answer<Page<ItemRow>> = await fetchPage('items', { limit: '200', ...(after === null ? {} : { after }) })
    if (!page.ok) return $itemsFetched.set('failed')
    adoptRows('items', page.value.items)
    after = page.value.next
  } while (after !== null)
  $itemsFetched.set('ready')
}

let underWay: Promise<void> | null = null
/** Fetches every item; who asks while they are on their way waits for the same ones. */
export const fetchItems = (): Promise<void> => {
  underWay ??= fetchAll().finally(() => {
    underWay = null
  })
  return underWay
}

const sameOf = (a: ItemOf, b: ItemOf): boolean => {
  const sorted = (of: ItemOf): string => JSON.stringify(Object.entries(of).sort(([x], [y]) => (x < y ? -1 : 1)))
  return sorted(a) === sorted(b)
}

/** An item as it is at first. */
const FRESH = {
  keys: 'fourths',
  tempo: USUAL_LADDER,
  ...{ pattern: null, note: null, tags: [], rests: null },
} as const

/** The item of this, made where there is none yet; gives its id. */
export const itemFor = async (name: string, of: ItemOf): Promise<string> => {
  if ($itemsFetched.get() !== 'ready') await fetchItems()
  const known = $items.get().find((i) => sameOf(i.of, of))
  if (known) return known.id
  const id = addRow('items', { ...FRESH, name, of })
  say(toGlyphs(`Among your practice items: ${name}.`), 'undo')
  return id
}

export const changeItem = (row: ItemRow, change: Partial<ItemRow>): void => changeRow('items', row.id, change)

export const removeItem = async (row: ItemRow): Promise<void> => {
  const gone = await removeRow('items', row.id)
  say(
    gone.ok ? 'Removed. What you practised of it stays in the log.' : `Not removed: ${gone.detail}`,
    gone.ok ? 'undo' : null,
  )
}

/** Puts a key off for some days, rests it (`days` null), or takes it up again (0). */
export const restKey = async (row: ItemRow, key: string | null, days: number | null): Promise<void> => {
  const others = (row.rests ?? []).filter((r) => r.key !== key)
  const until = days === null ? null : new Date(Date.now() + days * DAY_MS).toISOString()
  const rests: readonly Rest[] = days === 0 ? others : [...others, { key, until }]
  changeItem(row, { rests })
  const what = toGlyphs(key === null ? row.name : `${row.name} in ${key}`)
  const how =
    days === null
      ? 'rested'
      : days === 0
        ? 'taken up again'
        : days === 1
          ? 'put off until tomorrow'
          : `put off for ${days} days`
  if (await flushRow('items', row.id)) say(`${what}: ${how}.`, 'undo')
}

/** Ready sets, in the order teachers give: each sound alone, then together, then outside and in. */
export const READY_ITEMS: readonly { readonly name: string; readonly of: ItemOf }[] = [
  { name: 'Only the arpeggio', of: { kind: 'overlay', overlay: 'G7 arpeggio', chord: 'G7', next: 'Cmaj7' } },
  { name: 'Only the scale', of: { kind: 'overlay', overlay: 'G mixolydian', chord: 'G7', next: 'Cmaj7' } },
  { name: 'Only the altered dominant', of: { kind: 'overlay', overlay: 'G altered', chord: 'G7', next: 'Cmaj7' } },
  {
    name: 'Arpeggio and altered, by turns',
    of: { kind: 'combine', sounds: ['G7 arpeggio', 'G altered'], chord: 'G7', block: 2 },
  },
  {
    name: 'Four bars out, four bars in',
    of: { kind: 'out-in', chord: 'Dm7', outside: 'a half step up', block: 4, first: 'in' },
  },
  { name: 'Degrees by eye', of: { kind: 'quiz', topics: ['degree', 'note'] } },
  { name: 'Degrees by ear', of: { kind: 'quiz', topics: ['degree by ear', 'further out by ear'] } },
]

export const addReadyItems = (): void => {
  const join = `ready ${Date.now()}`
  for (const { name, of } of READY_ITEMS) addRow('items', { ...FRESH, name, of }, join)
  say('Seven items, in the order they are usually taken.', 'undo')
}
