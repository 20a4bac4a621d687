import { reverse, toGlyphs, transposeChord, transposeOverlay } from '../../../core/index.ts'
import { overlayPhrase } from '../../../sound/sound.ts'
import { $address, go } from '../address/address.ts'
import { keep } from '../desk/keeping.ts'
import { keepDraft } from '../line/making.ts'
import { say } from '../page/notices.ts'
import { $planning } from '../route/planning.ts'
import { pickInView } from '../route/route-model.ts'
import { concertSteps, keepRoute } from '../route/routes.ts'
import { stepInView, toggleLock } from '../route/steering.ts'
import { hear } from '../sound/hearing.ts'
import { hearOverlay } from '../sound/overlay-hearing.ts'
import { startPlaying } from '../sound/playing.ts'
import { layHere, takeChain } from '../tune/in-hand.ts'
import { $openChart } from '../tune/open-chart.ts'

/** On the Route view the step in view is heard over its chord, in Make the draft over the band; elsewhere the overlay. */
export const hearHere = (): void => {
  const address = $address.get()
  if (address?.view === 'line' && address.make === 'make') return void startPlaying()
  if (address?.view !== 'route') return hearOverlay()
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

/** On the Route view the route in view is kept, in Make the draft; elsewhere the overlay. */
export const keepHere = (): void => {
  const address = $address.get()
  if (address?.view === 'line' && address.make === 'make') return keepDraft()
  if (address?.view !== 'route') return keep()
  const view = chainInView()
  if (view) keepRoute(view.route.title, view.route.steps, view.openChart)
}

/** Lays what is in view over its chord; on the Route view the step in view, which a planning then keeps. */
export const layInView = (): void => {
  const view = $address.get()?.view
  if (view === 'route') toggleLock()
  else layHere()
}

/** Opens Make with what is in view as its plan: the overlay over its chord, or the route, a chain in view taken first. */
export const makeHere = async (): Promise<void> => {
  const address = $address.get()
  if (!address) return
  if (address.view === 'line') return go({ make: address.make === 'make' ? 'off' : 'make', note: 0 })
  if (address.view === 'route') await takeHere()
  const makeFrom = address.view === 'route' ? 'laid' : 'here'
  go({ view: 'line', make: 'make', makeFrom, draft: 0, note: 0 })
}
