import { $address, go } from '../address/address.ts'
import { $today } from '../practice/figures.ts'
import { $items } from '../practice/items.ts'
import { beginQuiz, topicsFrom } from '../practice/quiz.ts'
import { $arranged, $session, arrangedOf, beginSession, blockNow, nextBlock } from '../practice/session.ts'
import { startWhenOpen, stopRounds } from './practising.ts'

/** Opens the block in hand and begins it: on the player, in the quiz, or as a place without an item. */
export const openBlock = (): void => {
  const block = blockNow()
  if (!block) return go({ view: 'practice', practise: 'today' })
  const item = $items.get().find((i) => i.id === block.itemId)
  if (item?.of.kind === 'quiz') {
    beginQuiz(item.id, topicsFrom(item.of.topics ?? null))
    return go({ view: 'practice', practise: 'quiz', item: item.id, inKey: null })
  }
  if (block.itemId !== null) startWhenOpen(block.itemId)
  go({ view: 'player', item: block.itemId, inKey: block.card?.key ?? null })
}

/** Begins today's list as it is arranged, and opens its first block. */
export const startSession = (): void => {
  if ($session.get()) return openBlock()
  const { query, value } = $today.get()
  const blocks = arrangedOf(query, value?.blocks ?? [], $arranged.get())
  if (blocks.length === 0) return
  beginSession(blocks)
  openBlock()
}

/** Goes on to the next block, or ends the session. */
export const goOnToNextBlock = (): void => {
  stopRounds()
  nextBlock()
  openBlock()
}

/** Space on the list of the day starts the session; tells whether it did. */
export const startSessionHere = (): boolean => {
  const address = $address.get()
  if (address?.view !== 'practice' || address.practise !== 'today') return false
  startSession()
  return true
}
