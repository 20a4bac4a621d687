import { reverse, toGlyphs, transposeChord, transposeOverlay } from '../../../core/index.ts'
import { overlayPhrase } from '../../../sound/sound.ts'
import { $address, go } from '../address/address.ts'
import { keep } from '../desk/keeping.ts'
import { say } from '../page/notices.ts'
import { $planning } from '../route/planning.ts'
import { pickInView } from '../route/route-model.ts'
import { concertSteps, keepRoute } from '../route/routes.ts'
import { stepInView, toggleLock } from '../route/steering.ts'
import { hear } from '../sound/hearing.ts'
import { hearOverlay } from '../sound/overlay-hearing.ts'
import { layHere, takeChain } from '../tune/in-hand.ts'
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

/** The chain in view on the Route view, where one is. */
const chainInView = () => {
  const [address, openChart] = [$address.get(), $openChart.get()]
  const pick = address && openChart && pickInView(address, openChart)
  const route = pick === null ? undefined : $planning.get().routes[pick]
  return route && openChart ? { route, openChart } : null
}

/** Takes the chain in view into the route in hand. */
export const takeHere = async (): Promise<void> => {
  const view = chainInView()
  if (!view) return
  const { title, steps } = view.route
  await takeChain(title, concertSteps(steps, view.openChart))
  go({ pick: null })
  say(toGlyphs(`In hand: ${title}.`), 'undo')
}

/** On the Route view the route in view is kept; elsewhere the overlay. */
export const keepHere = (): void => {
  if ($address.get()?.view !== 'route') return keep()
  const view = chainInView()
  if (view) keepRoute(view.route.title, view.route.steps, view.openChart)
}

/** Lays what is in view over its chord; on the Route view the step in view, which a planning then keeps. */
export const layInView = (): void => {
  const view = $address.get()?.view
  if (view === 'route') toggleLock()
  else layHere()
}
