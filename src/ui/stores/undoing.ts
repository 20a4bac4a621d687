import { redoKept, undoKept } from './kept.ts'
import { $place } from './place.ts'
import { redoPlan, undoPlan } from './plan-history.ts'

/** On the Route view what was last asked of the route is taken back first; else the last thing that was kept. */
export const undoLast = async (): Promise<void> => {
  if ($place.get()?.view === 'route' && undoPlan()) return
  await undoKept()
}

export const redoLast = async (): Promise<void> => {
  if ($place.get()?.view === 'route' && redoPlan()) return
  await redoKept()
}
