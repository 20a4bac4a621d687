import { type Address, readAddress } from '../address/address.ts'
import type { Kept } from '../kept/kept.ts'

/** For tests: the address of a path and query. */
export const addressAt = (text: string): Address => {
  const url = new URL(text, 'http://localhost')
  const address = readAddress(url.pathname, url.searchParams)
  if (!address) throw new Error(text)
  return address
}

const STAMP = { id: 'x', version: 1, createdAt: '', updatedAt: '' }

/** For tests: a chart that is kept and open, with some settings. */
export const keptChart = (text: string, settings: Readonly<Record<string, unknown>> = {}): Kept => ({
  charts: [{ id: 'c1', title: 'Bollard' }],
  chart: { ...STAMP, id: 'c1', title: 'Bollard', text, tags: [], overrides: null },
  missing: false,
  loading: false,
  failed: null,
  ideas: [],
  route: null,
  ownText: null,
  settings: Object.entries(settings).map(([name, value]) => ({ ...STAMP, name, value })),
})
