import type { ReadableAtom } from 'nanostores'
import { useSyncExternalStore } from 'react'
import { $kept, type Kept, startKept } from './kept.ts'
import { $place, type Place, startPlace } from './place.ts'
import { startMusic } from './playing.ts'

/** What the server rendered the page from; every island is handed the same. */
export interface Boot {
  readonly place: Place
  readonly kept: Kept
}

/** Starts the stores in the browser, once, by whichever island comes first. */
export const startSession = (boot: Boot): void => {
  if (typeof window === 'undefined' || $place.get() !== null) return
  startPlace(boot.place)
  startKept(boot.kept)
  startMusic()
}

const useStarted = <T>(store: ReadableAtom<T | null>, asked: T): T =>
  useSyncExternalStore(
    (changed) => store.listen(changed),
    () => store.get() ?? asked,
    () => asked,
  )

export const usePlace = (boot: Boot): Place => useStarted($place, boot.place)
export const useKept = (boot: Boot): Kept => useStarted($kept, boot.kept)
