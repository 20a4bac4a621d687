import { atom } from 'nanostores'

/** Whether the school is being chosen on the spot. */
export const $schoolOpen = atom<boolean>(false)
export const openSchool = (): void => $schoolOpen.set(true)
export const closeSchool = (): void => $schoolOpen.set(false)

/** Whether a sheet is being made. */
export const $printing = atom<boolean>(false)
export const openPrinting = (): void => $printing.set(true)
export const closePrinting = (): void => $printing.set(false)
