import { atom } from 'nanostores'
import { $address, AT_START, go } from '../address/address.ts'
import { readStored, writeStored } from '../kept/browser-store.ts'
import type { News } from '../kept/news.ts'
import { request } from '../kept/request.ts'
import { TAB } from '../kept/unsent.ts'
import { $music, $playing } from './playing.ts'

type Place = Omit<Extract<News, { news: 'playing' }>, 'news'>

/** Where another page plays, of this device or another; null while none does. */
export const $elsewhere = atom<Place | null>(null)

/** Whether this device goes along with the one that plays: it stays so until it is said otherwise. */
export const $goesAlong = atom(false)
const STORED = 'crossfade-goes-along'

/** One of which nothing is heard for so long plays no more, ms. */
const SILENT_MS = 60_000
let silence: ReturnType<typeof setTimeout> | undefined

/** The chord that sounds there comes into view here; not over what is being typed or tried out. */
const goAlong = (): void => {
  const [place, address] = [$elsewhere.get(), $address.get()]
  if (!place || !address || !$goesAlong.get() || $playing.get()) return
  if (address.view === 'charts' || address.over !== null) return
  const { chartId, bar, beat } = place
  if (chartId === null) return
  if (chartId === address.chart && address.sketch === null) go({ bar, beat })
  else go({ ...AT_START, chart: chartId, sketch: null, bar, beat })
}

export const setGoesAlong = (goesAlong: boolean): void => {
  $goesAlong.set(goesAlong)
  writeStored(STORED, goesAlong)
  goAlong()
}

export const hearPlaying = (news: News): void => {
  if (news.news !== 'playing' || news.page === TAB) return
  clearTimeout(silence)
  if (!news.playing) {
    if ($elsewhere.get()?.page === news.page) $elsewhere.set(null)
    return
  }
  $elsewhere.set(news)
  silence = setTimeout(() => $elsewhere.set(null), SILENT_MS)
  goAlong()
}

/** Tells the other pages where this one plays, from chord to chord, and that it stopped. */
export const startTellingMusic = (): void => {
  $goesAlong.set(readStored<boolean>(STORED) === true)
  let last: Omit<Place, 'playing' | 'page'> | null = null
  $music.listen((music) => {
    const address = $address.get()
    const place = music && address ? { chartId: address.sketch === null ? address.chart : null, ...music } : null
    if (place === null && last === null) return
    const told = place ?? last
    last = place
    void request('POST', 'playing', { ...told, playing: place !== null, page: TAB })
  })
}
