import { $address, go } from '../address/address.ts'
import type { ItemRow } from '../kept/row-types.ts'
import { $today } from '../practice/figures.ts'
import { $items, $itemsFetched, fetchItems } from '../practice/items.ts'
import { beginQuiz, topicsFrom } from '../practice/quiz.ts'
import { $arranged, $session, arrangedOf, beginSession, blockNow, nextBlock } from '../practice/session.ts'
import { startWhenOpen, stopRounds } from './practising.ts'

/** Puts an item where it is practised: a quiz is begun, of one topic where `key` names it; all else goes on the player. */
export const playItem = ({ id, of }: ItemRow, key: string | null): void => {
  if (of.kind !== 'quiz') return go({ view: 'player', item: id, inKey: key })
  beginQuiz(id, topicsFrom(key === null ? (of.topics ?? null) : [key]))
  go({ view: 'practice', practise: 'quiz', item: id, inKey: null })
}

/** Opens the block in hand and begins it: on the player, in the quiz, or as a place without an item. */
export const openBlock = async (): Promise<void> => {
  const block = blockNow()
  if (!block) return go({ view: 'practice', practise: 'today' })
  if (block.itemId !== null && $itemsFetched.get() !== 'ready') await fetchItems()
  if (blockNow() !== block) return
  const item = $items.get().find((i) => i.id === block.itemId)
  if (!item) return go({ view: 'player', item: null, inKey: null })
  if (item.of.kind !== 'quiz') startWhenOpen(item.id)
  playItem(item, block.card?.key ?? null)
}

/** Begins today's list as it is arranged, and opens its first block. */
export const startSession = async (): Promise<void> => {
  if ($session.get()) return openBlock()
  const { query, value } = $today.get()
  const blocks = arrangedOf(query, value?.blocks ?? [], $arranged.get())
  if (blocks.length === 0) return
  beginSession(blocks)
  await openBlock()
}

/** Goes on to the next block, or ends the session. */
export const goOnToNextBlock = (): void => {
  stopRounds()
  nextBlock()
  void openBlock()
}

/** Space on the list of the day starts the session; tells whether it did. */
export const startSessionHere = (): boolean => {
  const address = $address.get()
  if (address?.view !== 'practice' || address.practise !== 'today') return false
  void startSession()
  return true
}
