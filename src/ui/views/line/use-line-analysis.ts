import { useEffect, useMemo, useState } from 'react'
import { analyseLine, type LineAnalysis, type LineAsk } from '../../../core/index.ts'
import { analyseLineInWorker, readyAuditor } from '../../../workers/start.ts'

/** Up to so many notes a line is taken apart at once; a longer one aside, so that the page stays free. */
const AT_ONCE = 160

/** A line taken apart, and whether that is still going on; while a longer one is, what was found before stays in sight. */
export const useLineAnalysis = (
  ask: LineAsk | null,
  id: string,
): { readonly lineAnalysis: LineAnalysis | null; readonly waiting: boolean } => {
  const inWorker = ask !== null && ask.notes.length > AT_ONCE
  const here = useMemo(() => (ask === null || inWorker ? null : analyseLine(ask)), [ask, inWorker])
  const [came, setCame] = useState<{
    readonly id: string
    readonly of: LineAsk
    readonly lineAnalysis: LineAnalysis | null
  } | null>(null)
  useEffect(readyAuditor, [])
  useEffect(() => {
    if (!ask || !inWorker) return
    let wanted = true
    const came = (lineAnalysis: LineAnalysis | null): void => {
      if (wanted) setCame({ id, of: ask, lineAnalysis })
    }
    // A worker that does not load leaves the work to the page, which is slower and no less right.
    void analyseLineInWorker(ask).then(came, () => came(analyseLine(ask)))
    return () => {
      wanted = false
    }
  }, [ask, inWorker, id])
  if (!inWorker) return { lineAnalysis: here, waiting: false }
  return { lineAnalysis: came?.id === id ? came.lineAnalysis : null, waiting: came?.of !== ask }
}
