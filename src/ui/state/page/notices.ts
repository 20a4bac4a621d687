import { atom } from 'nanostores'

/** One line to the player; `undo` offers to take back what it speaks of. */
export interface Notice {
  readonly text: string
  readonly offer: 'undo' | null
}

export const $notice = atom<Notice | null>(null)

const SHOWN_MS = 6000
let hiding: ReturnType<typeof setTimeout> | undefined

export const say = (text: string, offer: 'undo' | null = null): void => {
  clearTimeout(hiding)
  $notice.set({ text, offer })
  hiding = setTimeout(() => $notice.set(null), SHOWN_MS)
}
