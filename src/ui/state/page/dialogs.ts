import { atom } from 'nanostores'

/** Whether the school is being chosen on the spot. */
export const $schoolOpen = atom<boolean>(false)
export const openSchool = (): void => $schoolOpen.set(true)
export const closeSchool = (): void => $schoolOpen.set(false)

/** Whether shapes, words and keys are told. */
export const $legendOpen = atom<boolean>(false)
export const openLegend = (): void => $legendOpen.set(true)
export const toggleLegend = (): void => $legendOpen.set(!$legendOpen.get())

/** Whether a sheet is being made. */
export const $printing = atom<boolean>(false)
export const openPrinting = (): void => $printing.set(true)
export const closePrinting = (): void => $printing.set(false)

/** Whether the band is being set: a panel over the foot rail, beside which everything goes on. */
export const $bandOpen = atom<boolean>(false)
export const toggleBand = (): void => $bandOpen.set(!$bandOpen.get())
export const closeBand = (): boolean => {
  const was = $bandOpen.get()
  $bandOpen.set(false)
  return was
}
