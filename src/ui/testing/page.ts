import { vi } from 'vitest'
import { $address } from '../state/address/address.ts'
import { $kept, type Kept, startKept } from '../state/kept/kept.ts'
import { addressAt, keptChart } from '../state/testing/kept.ts'
import { type StandIn, standIn } from '../state/testing/server.ts'
import { $openChart, type OpenChart } from '../state/tune/open-chart.ts'
import type { ViewProps } from '../views/view.ts'

/** For tests of views: a page with one open chart, and a server that has it. */
export const startPage = (
  text: string,
  settings: Readonly<Record<string, unknown>> = { instrument: 'concert' },
): StandIn => {
  const server = standIn()
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init))
  const kept: Kept = keptChart(text, settings)
  const chart = server.put('charts', 'c1', { ...kept.chart })
  for (const { name, value } of kept.settings) server.put('settings', `s-${name}`, { name, value })
  $address.set(addressAt('/desk?chart=c1'))
  startKept({
    ...kept,
    chart: { ...kept.chart, ...chart } as Kept['chart'],
    settings: kept.settings.map((s) => ({ ...s, id: `s-${s.name}` })),
  })
  return server
}

/** What a view is drawn from, as it stands now. */
export const props = (): ViewProps => {
  const [address, kept, openChart] = [$address.get(), $kept.get(), $openChart.get()]
  if (!address || !kept || !openChart) throw new Error('the page has not started')
  return { address, kept, openChart }
}
export const openChart = (): OpenChart => props().openChart

export const at = (address: string): void => $address.set(addressAt(address))
