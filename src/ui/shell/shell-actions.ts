import { atom } from 'nanostores'
import { closeSketch } from '../stores/actions.ts'
import { closeBand } from '../stores/dialogs.ts'
import { silence } from '../stores/hearing.ts'
import { $place, go } from '../stores/place.ts'
import { $playing, stopPlaying } from '../stores/playing.ts'

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
export const turnStand = (): void => go({ view: $place.get()?.view === 'stand' ? 'desk' : 'stand' })
