import { say } from './notices.ts'
import { $place, go, type Place } from './place.ts'

/** What a plan is, as far as it can be undone. */
type Planning = Pick<Place, 'plan' | 'pick' | 'route'>

/** Plans before the one in view and after it; a null stands for something kept meanwhile, which the server undoes. */
let past: (Planning | null)[] = []
let future: Planning[] = []
let chart: string | null = null

const now = (): Planning | null => {
  const place = $place.get()
  if (!place) return null
  const { plan, pick, route } = place
  return { plan, pick, route }
}

/** Another chart has a history of its own. */
const sameChart = (): void => {
  const place = $place.get()
  const open = place?.sketch ?? place?.chart ?? null
  if (open !== chart) [chart, past, future] = [open, [], []]
}

/** Asks something else of the route; what was asked before can be had again. */
export const changePlan = (change: Partial<Planning>): void => {
  sameChart()
  const before = now()
  if (!before) return
  past.push(before)
  future = []
  go(change)
}

/** Something was kept: what is undone next is that. */
export const keptMeanwhile = (): void => {
  sameChart()
  past.push(null)
}

export const undoPlan = (): boolean => {
  sameChart()
  const before = past.pop()
  const here = now()
  if (!before || !here) return false
  future.push(here)
  go(before)
  say('Taken back.')
  return true
}

export const redoPlan = (): boolean => {
  sameChart()
  const after = future.pop()
  const here = now()
  if (!after || !here) return false
  past.push(here)
  go(after)
  say('Done again.')
  return true
}
