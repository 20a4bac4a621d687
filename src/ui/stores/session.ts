import type { ReadableAtom } from 'nanostores'
import { useSyncExternalStore } from 'react'
import { $kept, type Kept, startKept } from './kept.ts'
import { $place, type Place, startPlace } from './place.ts'
import { startMusic } from './playing.ts'

/** What the server rendered the page from; every island begins with the same. */
export interface Boot {
  readonly place: Place
  readonly kept: Kept
}

/**
 * The boot as an island is handed it. What can be enumerated is written into the page for each island again: so the boot
 * cannot, and stands in the page once, where the browser reads it.
 */
export type Handed = object
const UNSEEN = Symbol.for('crossfade.boot')
export const BOOT_ID = 'boot'

export const handed = (boot: Boot): Handed => Object.defineProperty({}, UNSEEN, { value: boot })

let read: Boot | null = null

export const bootIn = (given: Handed): Boot => {
  const own = (given as { readonly [UNSEEN]?: Boot })[UNSEEN]
  if (own) return own
  read ??= JSON.parse(document.getElementById(BOOT_ID)?.textContent ?? 'null') as Boot
  return read
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
