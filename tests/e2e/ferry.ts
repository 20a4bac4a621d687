import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../serving.ts'
import { call } from './server.ts'

const DEMO = join(ROOT, 'demo')
const read = (name: string): string => readFileSync(join(DEMO, name), 'utf8')

/** Puts the ferry band's charts, routes, ideas and lines on a server; gives the charts' ids by title. */
export const boardFerry = async (address: string): Promise<ReadonlyMap<string, string>> => {
  const ids = new Map<string, string>()
  for (const file of readdirSync(join(DEMO, 'charts')).sort()) {
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
