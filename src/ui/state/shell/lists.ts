import { $address } from '../address/address.ts'
import { moveInList } from '../desk/ranking.ts'
import { moveDraft } from '../line/making.ts'
import { moveSentence } from '../line/verdict.ts'
import { movePair } from '../pairs/pair-list.ts'
import { movePick } from '../route/steering.ts'
import { $openChart } from '../tune/open-chart.ts'

/** The arrow keys walk the list of the view in sight. */
export const moveRow = (by: 1 | -1): void => {
  const openChart = $openChart.get()
  if (!openChart) return
  const address = $address.get()
  const view = address?.view
  if (view === 'pairs') movePair(by, openChart)
  else if (view === 'route') movePick(by)
  else if (view === 'line' && address?.make === 'make') moveDraft(by)
  else if (view === 'line') moveSentence(by)
  else moveInList(by, openChart)
}
