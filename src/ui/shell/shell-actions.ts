import { atom } from 'nanostores'
import { $address, go } from '../state/address/address.ts'
import { closeBand } from '../state/page/dialogs.ts'
import { silence } from '../state/sound/hearing.ts'
import { $playing, stopPlaying } from '../state/sound/playing.ts'
import { closeSketch } from '../state/tune/asking.ts'

export const $legendOpen = atom<boolean>(false)
export const toggleLegend = (): void => $legendOpen.set(!$legendOpen.get())

/** Esc backs out of the nearest thing: the band's panel, a sound, then a sketch. Dialogs and fields close themselves first. */
export const backOut = (): void => {
  if (closeBand()) return
  if ($playing.get()) stopPlaying()
  void silence()
  if (document.activeElement instanceof HTMLElement && document.activeElement !== document.body)
    document.activeElement.blur()
  else closeSketch()
}

/** To the stand and back to the Desk. */
export const toggleStand = (): void => go({ view: $address.get()?.view === 'stand' ? 'desk' : 'stand' })
