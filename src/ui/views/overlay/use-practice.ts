import { useStore } from '@nanostores/react'
import { useEffect } from 'react'
import type { ItemRow } from '../../state/kept/row-types.ts'
import { $cards, $practised, askCards, type CardFigures } from '../../state/practice/figures.ts'
import { $items, $itemsFetched, fetchItems } from '../../state/practice/items.ts'

/** All items, fetched where they are not here yet. */
export const useItems = (): readonly ItemRow[] => {
  const fetched = useStore($itemsFetched)
  useEffect(() => {
    if (fetched === null) void fetchItems()
  }, [fetched])
  return useStore($items)
}

/** Asks for figures, and anew with everything that is kept of items and the log. */
export const usePractised = (ask: () => unknown): void => {
  const practised = useStore($practised)
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is what was kept that tells
  useEffect(() => void ask(), [practised])
}

/** Every card as it stands. */
export const useCards = (): readonly CardFigures[] => {
  usePractised(askCards)
  return useStore($cards).value?.cards ?? NONE
}
const NONE: readonly CardFigures[] = []
