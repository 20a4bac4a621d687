import { getContext, start } from 'tone'

/** The live context, running. */
export const liveContext = async (): Promise<AudioContext> => {
  await start()
  return getContext().rawContext as AudioContext
}

/** Looks no older than so many ms count. */
const REMEMBERED_MS = 4000
let looks: readonly { readonly at: number; readonly ahead: number }[] = []

/** What the context's clock is ahead of the page's, in ms: it goes by leaps and lags behind between them, so that the most counts. */
export const clockAhead = (): number => {
  const at = performance.now()
  looks = [...looks.filter((l) => l.at > at - REMEMBERED_MS), { at, ahead: getContext().currentTime * 1000 - at }]
  return Math.max(...looks.map((l) => l.ahead))
}
