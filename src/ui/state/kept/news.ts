import type { KindName } from './row-types.ts'

/** What the server tells of what happens elsewhere. */
export type News =
  | {
      readonly news: 'row'
      readonly kind: KindName
      readonly id: string
      readonly gone: boolean
      readonly step: string | null
    }
  | {
      readonly news: 'playing'
      readonly page: string
      readonly chartId: string | null
      readonly bar: number
      readonly beat: number
      readonly playing: boolean
    }
  /** Something may have gone by unheard. */
  | { readonly news: 'missed' }
type Hears = (news: News) => void

const NAME = 'crossfade-news'
const PATH = '/api/v1/changes'
/** A stream that was refused is asked for again after so long, ms. */
const AGAIN_MS = 3000
/** One that opens so long after the page did comes late, ms. */
const LATE_MS = 3000

/** Opens the stream and keeps it open; gives what ends it. */
const stream = (hears: Hears): (() => void) => {
  let source: EventSource
  let isOver = false
  let late = performance.now() > LATE_MS
  const open = (): void => {
    source = new EventSource(PATH)
    source.onopen = () => {
      if (late) hears({ news: 'missed' })
      late = true
    }
    source.onmessage = (event) => hears(JSON.parse(event.data))
    source.onerror = () => {
      if (source.readyState === EventSource.CLOSED && !isOver) setTimeout(() => !isOver && open(), AGAIN_MS)
    }
  }
  open()
  return () => {
    isOver = true
    source.close()
  }
}

/** Where tabs cannot agree on one stream, each has its own while it is in sight: a browser opens six connections at most. */
const whileInSight = (hears: Hears): void => {
  let end: (() => void) | null = null
  const look = (): void => {
    const isInSight = document.visibilityState === 'visible'
    if (isInSight) end ??= stream(hears)
    else {
      end?.()
      end = null
    }
  }
  document.addEventListener('visibilitychange', look)
  look()
}

/** Hears the server's news for as long as the page lives: one tab of a browser listens, and tells the others. */
export const listenToNews = (hears: Hears): void => {
  if (typeof EventSource === 'undefined') return
  const { locks } = navigator as Partial<Navigator>
  if (!locks || typeof BroadcastChannel === 'undefined') return whileInSight(hears)
  const others = new BroadcastChannel(NAME)
  others.onmessage = ({ data }) => hears(data)
  const lead = (): Promise<never> => {
    stream((news) => {
      others.postMessage(news)
      hears(news)
    })
    return new Promise(() => undefined)
  }
  void locks.request(NAME, lead).catch(() => whileInSight(hears))
}
