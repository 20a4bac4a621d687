// npm run demo: the ferry band's charts in a data directory of their own, loaded once. --fresh starts the demo over.
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { ensureBuilt, ensureDatabase, ensureInstalled, ROOT, refuseIfTaken } from './prepare.mjs'

const data = resolve(ROOT, process.env.CROSSFADE_DATA ?? 'demo-data')
const mark = join(data, 'DEMO')
process.env.CROSSFADE_DATA = data

await ensureInstalled()
await ensureBuilt()
await refuseIfTaken(data)
if (process.argv.includes('--fresh') && existsSync(data)) {
  if (!existsSync(mark)) {
    console.error(`${data} has no demo mark, so it is left alone. Remove it yourself, or name another directory.`)
    process.exit(1)
  }
  rmSync(data, { recursive: true })
}
if (!existsSync(join(data, 'pg'))) {
  mkdirSync(data, { recursive: true })
  writeFileSync(mark, 'new\n')
}
ensureDatabase(data)

const { serve } = await import('./serve.mjs')
const address = await serve()

const post = async (path, body) => {
  const answer = await fetch(`${address}api/v1/${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  if (!answer.ok) throw new Error(`the demo's ${path} was refused: ${await answer.text()}`)
  return answer.json()
}

const loadCharts = async () => {
  const kept = await (await fetch(`${address}api/v1/charts?limit=200`)).json()
  const ids = new Map(kept.items.map((c) => [c.title, c.id]))
  const files = readdirSync(join(ROOT, 'demo/charts')).sort().reverse()
  for (const file of files) {
    const text = readFileSync(join(ROOT, 'demo/charts', file), 'utf8')
    const title = /^title = (.+)$/m.exec(text)?.[1] ?? file
    if (!ids.has(title)) ids.set(title, (await post('charts', { title, text, tags: ['ferry'] })).id)
  }
  return ids
}

const read = (kind) => JSON.parse(readFileSync(join(ROOT, `demo/${kind}.json`), 'utf8'))

/** Gives the ids of what was kept, by their names. */
const loadRows = async (kind, chartIds) => {
  const ids = new Map()
  for (const { chart, ...row } of read(kind))
    ids.set(row.name, (await post(kind, { ...row, chartId: chartIds.get(chart) })).id)
  return ids
}

const loadItems = async (chartIds, lineIds) => {
  const ids = new Map()
  for (const { of, ...row } of read('items')) {
    const { chart, line, ...plain } = of
    const over = { ...(chart && { chartId: chartIds.get(chart) }), ...(line && { lineId: lineIds.get(line) }) }
    ids.set(row.name, (await post('items', { ...row, of: { ...plain, ...over } })).id)
  }
  return ids
}

/** Three weeks that end yesterday. */
const loadLog = async (itemIds) => {
  for (const { daysAgo, at, item, ...row } of read('log')) {
    const day = new Date()
    day.setDate(day.getDate() - daysAgo)
    const [hours, minutes] = at.split(':').map(Number)
    day.setHours(hours, minutes, 0, 0)
    await post('log', { ...row, at: day.toISOString(), itemId: itemIds.get(item) ?? null })
  }
}

if (existsSync(mark) && readFileSync(mark, 'utf8').trim() === 'new') {
  const chartIds = await loadCharts()
  for (const kind of ['ideas', 'routes']) await loadRows(kind, chartIds)
  const lineIds = await loadRows('lines', chartIds)
  await loadLog(await loadItems(chartIds, lineIds))
  writeFileSync(mark, 'loaded\n')
}
console.log(address)
