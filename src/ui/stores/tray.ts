import { deskNow } from './actions.ts'
import { say } from './notices.ts'
import { $place, go, TRAY_HOLDS } from './place.ts'

/** Puts the overlay in view beside others, or takes it away again; the oldest gives way when the tray is full. */
export const turnTray = (): void => {
  const over = deskNow()?.concert?.overlay.name
  const place = $place.get()
  if (over === undefined || !place) return
  if (place.tray.includes(over)) return takeFromTray(over)
  go({ tray: [...place.tray, over].slice(-TRAY_HOLDS) })
  say(place.tray.length === TRAY_HOLDS ? 'In the tray; the oldest gave way.' : 'In the tray.')
}

export const takeFromTray = (name: string): void => {
  const tray = $place.get()?.tray ?? []
  go({ tray: tray.filter((t) => t !== name) })
}
