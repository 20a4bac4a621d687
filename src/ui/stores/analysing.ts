import type { Condensed } from '../../core/index.ts'
import { type AnalysisAsk, analyseAside } from '../../workers/start.ts'
import { merge } from './kept.ts'

/** What was last analysed aside; `found` is null where that failed. */
let came: { readonly key: string; readonly found: Condensed | null } | null = null
let asked: string | null = null

/**
 * The analysis of a long chart, worked out aside: `waiting` until it comes, when the page is shown anew; null where it
 * cannot be had there.
 */
export const analysedAside = (ask: AnalysisAsk): Condensed | null | 'waiting' => {
  if (typeof Worker === 'undefined') return null
  const key = JSON.stringify(ask)
  if (came?.key === key) return came.found
  if (asked !== key) {
    asked = key
    const tell = (found: Condensed | null): void => {
      if (asked !== key) return
      came = { key, found }
      merge({})
    }
    analyseAside(ask).then(tell, () => tell(null))
  }
  return 'waiting'
}
