/** Whether the editor of a chart takes the focus as soon as it is there: a new chart is typed at once. */
export const editorWanted = { now: false }

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
