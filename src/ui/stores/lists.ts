import { deskNow } from './actions.ts'
import { movePair } from './pair-list.ts'
import { $place } from './place.ts'
import { moveInList } from './ranking.ts'
import { movePick } from './steering.ts'
import { moveSentence } from './verdict.ts'

/** The arrow keys walk the list of the view in sight. */
export const moveRow = (by: 1 | -1): void => {
  const desk = deskNow()
  if (!desk) return
  const view = $place.get()?.view
  if (view === 'pairs') movePair(by, desk)
  else if (view === 'route') movePick(by)
  else if (view === 'line') moveSentence(by)
  else moveInList(by, desk)
}
