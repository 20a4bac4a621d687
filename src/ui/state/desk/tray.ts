import { $address, choose } from '../address/address.ts'
import { TRAY_HOLDS } from '../address/parts/desk.ts'
import { say } from '../page/notices.ts'
import { $openChart } from '../tune/open-chart.ts'

/** Puts the overlay in view beside others, or takes it away again; the oldest gives way when the tray is full. */
export const toggleTray = (): void => {
  const over = $openChart.get()?.concert?.overlay.name
  const address = $address.get()
  if (over === undefined || !address) return
  if (address.tray.includes(over)) return takeFromTray(over)
  choose('the tray', { tray: [...address.tray, over].slice(-TRAY_HOLDS) })
  say(address.tray.length === TRAY_HOLDS ? 'In the tray; the oldest gave way.' : 'In the tray.')
}

export const takeFromTray = (name: string): void => {
  const tray = $address.get()?.tray ?? []
  choose('the tray', { tray: tray.filter((t) => t !== name) })
}
