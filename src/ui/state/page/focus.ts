/** Fields that keys bring the focus to. */
export const ASK_ID = 'ask'
export const DEGREES_ID = 'degrees'
export const MENDS_ID = 'mends'

export const focusAsk = (): void => {
  const field = document.getElementById(ASK_ID)
  field?.focus()
  if (field instanceof HTMLInputElement) field.select()
}

/** To the part of a group that takes the focus. */
const focusIn = (id: string): void =>
  document.getElementById(id)?.querySelector<HTMLElement>('button:not([tabindex="-1"])')?.focus()

export const focusDegrees = (): void => focusIn(DEGREES_ID)
export const focusMends = (): void => focusIn(MENDS_ID)
