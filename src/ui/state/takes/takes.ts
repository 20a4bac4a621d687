import { atom, computed } from 'nanostores'
import { $address, go } from '../address/address.ts'
import { fetchPage, rowsIn } from '../kept/lists.ts'
import { openRow } from '../kept/opening.ts'
import { request } from '../kept/request.ts'
import type { TakeRow } from '../kept/row-types.ts'
import { $rows, adoptRows, changeRow, removeRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'

/** One that was cut off before anything was played holds nothing; it stays in case its notes still come. */
const holdsAnything = ({ notes, sound }: TakeRow): boolean => notes.length > 0 || sound !== null

/** The takes this page knows of, the last first. */
export const $takes = computed($rows.takes, (rows) => rowsIn<'takes'>(rows).filter((t) => !t.open && holdsAnything(t)))

/** Where the list goes on; null at its end, undefined before it was begun. */
export const $takesNext = atom<string | null | undefined>(undefined)
export const $takesFailed = atom<string | null>(null)

/** Fetches the next of all takes, the last first. */
export const moreTakes = async (): Promise<void> => {
  const after = $takesNext.get()
  if (after === null) return
  const page = await fetchPage('takes', { limit: '30', ...(after === undefined ? {} : { after }) })
  if (!page.ok) return $takesFailed.set(page.detail)
  $takesFailed.set(null)
  adoptRows('takes', page.value.items)
  $takesNext.set(page.value.next)
}

/** Looks for takes that were cut off, and says what became of them. */
export const recoverTakes = async (): Promise<void> => {
  const answer = await request<{ takes: readonly TakeRow[] }>('POST', 'takes/recover', {})
  if (!answer.ok) return
  adoptRows('takes', answer.value.takes)
  const [first, ...others] = answer.value.takes.filter(holdsAnything)
  if (!first) return
  say(
    others.length === 0
      ? `A take was cut off: ${first.name}. ${first.notes.length === 1 ? 'Its one note is' : `Its ${first.notes.length} notes are`} kept.`
      : `${others.length + 1} takes were cut off. What was played is kept.`,
  )
}

/** Opens the takes an address names where they are not known. */
export const startTakes = (): void => {
  const asked = new Set<string>()
  const look = (): void => {
    const address = $address.get()
    if (address?.view !== 'practice' || address.practise !== 'takes') return
    for (const id of [address.take, address.otherTake])
      if (id && !$rows.takes.get()[id] && !asked.has(id)) {
        asked.add(id)
        void openRow('takes', id)
      }
  }
  look()
  $address.listen(look)
}

export const removeTake = async ({ id }: TakeRow): Promise<void> => {
  const address = $address.get()
  const gone = await removeRow('takes', id)
  if (!gone.ok) return say(`Not removed: ${gone.detail}`)
  if (address?.take === id) go({ take: null, otherTake: null })
  else if (address?.otherTake === id) go({ otherTake: null })
  say('Removed.', 'undo')
}

/** A sentence as it is disputed: by what it is about and where, in whatever words. */
export const disputedAs = (about: string, bars: readonly [number, number]): string => `${about} ${bars[0]}-${bars[1]}`

/** Takes a sentence as wrong, or lets it stand again. */
export const disputeSentence = (row: TakeRow, words: string): void => {
  const before = row.disputed ?? []
  const disputed = before.includes(words) ? before.filter((d) => d !== words) : [...before, words]
  changeRow('takes', row.id, { disputed })
}

/** Removes the sound of a take; the notes stay. */
export const removeSound = async ({ id }: TakeRow): Promise<void> => {
  const answer = await request('DELETE', `takes/${id}/sound`)
  if (!answer.ok) return say(`Not removed: ${answer.detail}`)
  await openRow('takes', id)
  say('The sound is removed; the notes stay.')
}
