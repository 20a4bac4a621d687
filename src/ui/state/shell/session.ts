import type { ReadableAtom } from 'nanostores'
import { useSyncExternalStore } from 'react'
import { $address, type Address, startAddress } from '../address/address.ts'
import { startRecent } from '../charts/recent.ts'
import { $kept, type Kept, startKept } from '../kept/kept.ts'
import { listenToNews } from '../kept/news.ts'
import { hearChange } from '../kept/others.ts'
import { startLines } from '../line/lines.ts'
import { startSessions } from '../practice/session.ts'
import { hearPlaying, startTellingMusic } from '../sound/elsewhere.ts'
import { startHearingWritten } from '../sound/line-hearing.ts'
import { startListeningBack } from '../sound/listening-back.ts'
import { startMusic } from '../sound/playing.ts'
import { keepHeldTake } from '../sound/recording.ts'
import { recoverTakes, startTakes } from '../takes/takes.ts'
import { $openChart, type OpenChart, openChartAt } from '../tune/open-chart.ts'
import { startMidiPedal } from './midi-pedal.ts'

/** What the server rendered the page from; every island begins with the same. */
export interface Boot {
  readonly address: Address
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
  if (typeof window === 'undefined' || $address.get() !== null) return
  startAddress(boot.address)
  startKept(boot.kept)
  startRecent()
  startLines()
  startMusic()
  startHearingWritten()
  startSessions()
  startTakes()
  startListeningBack()
  startMidiPedal()
  void keepHeldTake().then(recoverTakes)
  startTellingMusic()
  listenToNews((news) => {
    hearChange(news)
    hearPlaying(news)
  })
}

const useStarted = <T>(store: ReadableAtom<T | null>, asked: () => T): T =>
  useSyncExternalStore(
    (changed) => store.listen(changed),
    () => store.get() ?? asked(),
    asked,
  )

/** Where one is, what is kept, and the open chart: what every part of the page is drawn from. */
export const useSession = (
  boot: Boot,
): { readonly address: Address; readonly kept: Kept; readonly openChart: OpenChart } => ({
  address: useStarted($address, () => boot.address),
  kept: useStarted($kept, () => boot.kept),
  openChart: useStarted($openChart, () => openChartAt(boot.address, boot.kept)),
})
