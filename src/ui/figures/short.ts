import { useSyncExternalStore } from 'react'

/** Windows in which every px of height counts; style sheets say the same. */
const SHORT = '(max-height: 700px)'

const listen = (tell: () => void): (() => void) => {
  const query = matchMedia(SHORT)
  query.addEventListener('change', tell)
  return () => query.removeEventListener('change', tell)
}

/** Whether the window is short; a page that is being made for it begins tall. */
export const useShort = (): boolean =>
  useSyncExternalStore(
    listen,
    () => matchMedia(SHORT).matches,
    () => false,
  )
