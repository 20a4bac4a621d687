import { atom } from 'nanostores'
import { fetchPage } from '../kept/lists.ts'
import { adoptRows } from '../kept/rows.ts'

/** One kept thing that was found: what it is called, over what, and when it was changed last. */
export interface FoundRow {
  readonly kind: 'ideas' | 'lines' | 'routes' | 'takes'
  readonly id: string
  readonly name: string
  readonly chartId: string | null
  readonly at: string
  readonly bar: number | null
  readonly beat: number | null
}

/** What was found under a word; while another is looked for the last stays in sight. */
export const $found = atom<{
  readonly word: string
  readonly state: 'looking' | 'found' | 'failed'
  readonly rows: readonly FoundRow[]
}>({ word: '', state: 'looking', rows: [] })

const MOST = '60'
const lastFirst = (a: FoundRow, b: FoundRow): number => (b.at < a.at ? -1 : b.at > a.at ? 1 : 0)

/** Looks for ideas, lines, routes and takes by a word of their names, notes, chords or tags. */
export const findKept = async (word: string): Promise<void> => {
  const before = $found.get()
  $found.set({ ...before, word, state: 'looking' })
  const query = { q: word, limit: MOST }
  const [ideas, lines, routes, takes] = await Promise.all([
    fetchPage('ideas', query),
    fetchPage('lines', query),
    fetchPage('routes', query),
    fetchPage('takes', query),
  ])
  if ($found.get().word !== word) return
  if (!ideas.ok || !lines.ok || !routes.ok || !takes.ok) return $found.set({ ...before, word, state: 'failed' })
  adoptRows('ideas', ideas.value.items)
  adoptRows('lines', lines.value.items)
  adoptRows('routes', routes.value.items)
  adoptRows('takes', takes.value.items)
  const named =
    (kind: FoundRow['kind']) =>
    ({
      id,
      name,
      chartId,
      updatedAt,
    }: Pick<FoundRow, 'id' | 'name' | 'chartId'> & { readonly updatedAt: string }): FoundRow => ({
      ...{ kind, id, name, chartId, at: updatedAt, bar: null, beat: null },
    })
  const rows: readonly FoundRow[] = [
    ...ideas.value.items.map(({ id, overlay, chord, chartId, updatedAt, bar, beat }) => ({
      ...{ kind: 'ideas' as const, id, name: `${overlay} over ${chord}`, chartId, at: updatedAt, bar, beat },
    })),
    ...lines.value.items.map(named('lines')),
    ...routes.value.items.map(named('routes')),
    ...takes.value.items.map(named('takes')),
  ]
  $found.set({ word, state: 'found', rows: [...rows].sort(lastFirst) })
}
