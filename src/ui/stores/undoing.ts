import { redoKept, undoKept } from './kept.ts'
import { $lines, refreshLines } from './lines.ts'
import { $place } from './place.ts'
import { redoPlan, undoPlan } from './plan-history.ts'
import { $routes, refreshRoutes } from './routes.ts'

const refreshIfShown = async (): Promise<void> => {
  if ($routes.get() !== null) await refreshRoutes()
  if ($lines.get() !== null) await refreshLines()
}

/** On the Route view what was last asked of the route is taken back first; else the last thing that was kept. */
export const undoLast = async (): Promise<void> => {
  if ($place.get()?.view === 'route' && undoPlan()) return
  await undoKept()
  await refreshIfShown()
}

export const redoLast = async (): Promise<void> => {
  if ($place.get()?.view === 'route' && redoPlan()) return
  await redoKept()
  await refreshIfShown()
}
