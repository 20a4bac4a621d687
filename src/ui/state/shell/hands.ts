import { reverse, transposeChord, transposeOverlay } from '../../../core/index.ts'
import { overlayPhrase } from '../../../sound/sound.ts'
import { $address } from '../address/address.ts'
import { keep } from '../desk/keeping.ts'
import { $planning } from '../route/planning.ts'
import { keepRoute } from '../route/routes.ts'
import { stepInView } from '../route/steering.ts'
import { hear } from '../sound/hearing.ts'
import { hearOverlay } from '../sound/overlay-hearing.ts'
import { $openChart } from '../tune/open-chart.ts'

/** On the Route view the step in view is heard over its chord; elsewhere the overlay. */
export const hearHere = (): void => {
  if ($address.get()?.view !== 'route') return hearOverlay()
  const [step, openChart] = [stepInView(), $openChart.get()]
  if (!step?.overlay || !openChart) return
  const back = reverse(openChart.instrument.written)
  const { hearAs, hearTempo } = openChart.settings
  const chord = transposeChord(step.slot.chord, back)
  void hear(overlayPhrase(transposeOverlay(step.overlay, back), chord, { as: hearAs, tempo: hearTempo }))
}

/** On the Route view the route in view is kept; elsewhere the overlay. */
export const keepHere = (): void => {
  const [address, openChart] = [$address.get(), $openChart.get()]
  if (address?.view !== 'route') return keep()
  const route = $planning.get().routes[address.pick]
  if (route && openChart && address.route === null) keepRoute(route.title, route.steps, openChart)
}
