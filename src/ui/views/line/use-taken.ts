import { useEffect, useMemo, useState } from 'react'
import { type LineAsk, type Taken, takeLineApart } from '../../../core/index.ts'
import { readyAuditor, takeApartAside } from '../../../workers/start.ts'

/** Up to so many notes a line is taken apart at once; a longer one aside, so that the page stays free. */
const AT_ONCE = 160

/** A line taken apart, and whether that is still going on; while a longer one is, what was found before stays in sight. */
export const useTaken = (
  ask: LineAsk | null,
  id: string,
): { readonly taken: Taken | null; readonly waiting: boolean } => {
  const aside = ask !== null && ask.notes.length > AT_ONCE
  const here = useMemo(() => (ask === null || aside ? null : takeLineApart(ask)), [ask, aside])
  const [came, setCame] = useState<{ readonly id: string; readonly of: LineAsk; readonly taken: Taken | null } | null>(
    null,
  )
  useEffect(readyAuditor, [])
  useEffect(() => {
    if (!ask || !aside) return
    let wanted = true
    void takeApartAside(ask).then((taken) => wanted && setCame({ id, of: ask, taken }))
    return () => {
      wanted = false
    }
  }, [ask, aside, id])
  if (!aside) return { taken: here, waiting: false }
  return { taken: came?.id === id ? came.taken : null, waiting: came?.of !== ask }
}
