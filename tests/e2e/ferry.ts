import { readdirSync, readFileSync } from 'node:fs'
import { call } from './server.ts'

const DEMO = new URL('../../demo/', import.meta.url)
const read = (name: string): string => readFileSync(new URL(name, DEMO), 'utf8')

/** Puts the ferry band's charts, routes, ideas and lines on a server; gives the charts' ids by title. */
export const boardFerry = async (address: string): Promise<ReadonlyMap<string, string>> => {
  const ids = new Map<string, string>()
  for (const file of readdirSync(new URL('charts/', DEMO)).sort()) {
    const text = read(`charts/${file}`)
    const title = /^title\s*=\s*(.+)$/m.exec(text)?.[1]?.trim() ?? file
    ids.set(title, (await call(address, 'POST', 'charts', { title, text })).body.id)
  }
  for (const kind of ['ideas', 'routes', 'lines'])
    for (const { chart, ...row } of JSON.parse(read(`${kind}.json`)))
      await call(address, 'POST', kind, { ...row, chartId: ids.get(chart) })
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  return ids
}
