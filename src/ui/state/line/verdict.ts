import { atom } from 'nanostores'
import { disputeKey, type Sentence } from '../../../core/index.ts'
import type { LineRow } from '../kept/row-types.ts'
import { changeLine, goToNote } from './lines.ts'

/** What the player's school says of the line in view, and the notes of the sentence one looks at. */
export const $verdict = atom<readonly Sentence[]>([])
export const $marked = atom<readonly number[]>([])

export const lookAt = ({ notes }: Sentence): void => {
  const on = $marked.get().join() === notes.join()
  $marked.set(on ? [] : notes)
  goToNote(notes[0] ?? 0)
}

/** The next or previous sentence. */
export const moveSentence = (by: 1 | -1): void => {
  const all = $verdict.get()
  const marked = $marked.get().join()
  const at = all.findIndex((s) => s.notes.join() === marked)
  const to = at < 0 ? (by === 1 ? 0 : all.length - 1) : Math.max(0, Math.min(all.length - 1, at + by))
  const sentence = all[to]
  if (!sentence || to === at) return
  $marked.set(sentence.notes)
  goToNote(sentence.notes[0] ?? 0)
}

export const isDisputed = (row: LineRow, sentence: Sentence): boolean =>
  row.disputed?.includes(disputeKey(sentence)) === true

/** The player says a sentence is not so, or takes that back; it stays said. */
export const toggleDispute = (row: LineRow, sentence: Sentence): void => {
  const key = disputeKey(sentence)
  const others = (row.disputed ?? []).filter((d) => d !== key)
  const is = isDisputed(row, sentence)
  changeLine(row, { disputed: is ? others : [...others, key] }, is ? 'No longer disputed.' : 'Disputed.')
}
