import { atom } from 'nanostores'
import type { Condensed } from '../../../core/index.ts'
import { type AnalysisAsk, analyseInWorker } from '../../../workers/start.ts'

/** What was last analysed in the worker; `found` is null where that failed. */
export const $analysed = atom<{ readonly key: string; readonly found: Condensed | null } | null>(null)
let asked: string | null = null

/**
 * The analysis of a long chart, worked out in a worker: `waiting` until it comes, when the page is shown anew; null where it
 * cannot be had there.
 */
export const analysedInWorker = (ask: AnalysisAsk): Condensed | null | 'waiting' => {
  if (typeof Worker === 'undefined') return null
  const key = JSON.stringify(ask)
  const came = $analysed.get()
  if (came?.key === key) return came.found
  if (asked !== key) {
    asked = key
    const tell = (found: Condensed | null): void => {
      if (asked === key) $analysed.set({ key, found })
    }
    analyseInWorker(ask).then(tell, () => tell(null))
  }
  return 'waiting'
}
