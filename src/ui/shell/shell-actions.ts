import { atom } from 'nanostores'
import { closeSketch } from '../stores/actions.ts'
import { silence } from '../stores/hearing.ts'

export const $legendOpen = atom<boolean>(false)
export const toggleLegend = (): void => $legendOpen.set(!$legendOpen.get())

export const ASK_ID = 'ask'
export const focusAsk = (): void => {
  const field = document.getElementById(ASK_ID)
  field?.focus()
  if (field instanceof HTMLInputElement) field.select()
}

/** Esc backs out of the nearest thing: a sound, then a sketch. Dialogs and fields close themselves first. */
export const backOut = (): void => {
  void silence()
  if (document.activeElement instanceof HTMLElement && document.activeElement !== document.body)
    document.activeElement.blur()
  else closeSketch()
}
