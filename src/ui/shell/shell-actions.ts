import { $address, go } from '../state/address/address.ts'
import type { ViewId } from '../state/address/views.ts'
import { closeBand } from '../state/page/dialogs.ts'
import { leavePlayer, takeHere } from '../state/shell/hands.ts'
import { $hearing, silence } from '../state/sound/hearing.ts'
import { $playing, stopPlaying } from '../state/sound/playing.ts'
import { closeSketch } from '../state/tune/asking.ts'

/** The view the stand was opened from. */
let before: ViewId = 'desk'

const leaveStand = (): boolean => {
  if ($address.get()?.view !== 'stand') return false
  go({ view: before })
  return true
}

/** What has the focus, also inside an editor that has a shadow root of its own. */
const focused = (): HTMLElement | null => {
  let active = document.activeElement
  while (active?.shadowRoot?.activeElement) active = active.shadowRoot.activeElement
  return active instanceof HTMLElement && active !== document.body ? active : null
}

/** Takes the focus out of where one types; what is typed stays. */
const leaveTyping = (): boolean => {
  const active = focused()
  if (!active?.matches('input, textarea, select, [contenteditable="true"]')) return false
  active.blur()
  return true
}

/** Esc leaves what is in front: the band's panel, typing, the stand; then it stops the sound; then it closes a sketch. */
export const backOut = (): void => {
  if (closeBand() || leaveTyping() || leaveStand() || leavePlayer()) return
  const sounds = $playing.get() !== null || $hearing.get()
  if ($playing.get()) stopPlaying()
  void silence()
  const active = focused()
  active?.blur()
  if (!sounds && !active) closeSketch()
}

/** To the stand and back; a chain that is only proposed is taken in hand, so that the stand shows what was in view. */
export const toggleStand = (): void => {
  if (leaveStand()) return
  before = $address.get()?.view ?? 'desk'
  if (before === 'route') void takeHere().then(() => go({ view: 'stand' }))
  else go({ view: 'stand' })
}
