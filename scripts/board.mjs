// Puts the ferry band on a server: its charts, what lies over them, what is practised, three weeks of log, and some takes.
import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './prepare.mjs'

const read = (name) => readFileSync(join(ROOT, 'demo', name), 'utf8')
const rowsOf = (kind) => JSON.parse(read(`${kind}.json`))

/** The id of a row of the demo is always the same, so that a loading that was cut off goes on where it was. */
const idOf = (...name) => {
  const hash = createHash('sha256')
    .update(['ferry', ...name].join('\n'))
    .digest('hex')
  return `${hash.slice(0, 8)}-${hash.slice(8, 12)}-5${hash.slice(13, 16)}-8${hash.slice(17, 20)}-${hash.slice(20, 32)}`
}

/** Charts that are there already are left; gives the ids by title. */
const boardCharts = async (post, ids) => {
  for (const file of readdirSync(join(ROOT, 'demo/charts')).sort().reverse()) {
    const text = read(`charts/${file}`)
    const title = /^title = (.+)$/m.exec(text)?.[1] ?? file
    if (!ids.has(title))
      ids.set(title, (await post('charts', { id: idOf('charts', title), title, text, tags: ['ferry'] })).id)
  }
  return ids
}

/** Gives the ids of what was kept, by name. */
const boardRows = async (post, kind, chartIds) => {
  const ids = new Map()
  for (const [n, { chart, ...row }] of rowsOf(kind).entries())
    ids.set(row.name, (await post(kind, { id: idOf(kind, n), ...row, chartId: chartIds.get(chart) })).id)
  return ids
}

const boardItems = async (post, chartIds, lineIds) => {
  const ids = new Map()
  for (const [n, { of, ...row }] of rowsOf('items').entries()) {
    const { chart, line, ...plain } = of
    const over = { ...(chart && { chartId: chartIds.get(chart) }), ...(line && { lineId: lineIds.get(line) }) }
    ids.set(row.name, (await post('items', { id: idOf('items', n), ...row, of: { ...plain, ...over } })).id)
  }
  return ids
}

/** Three weeks that end yesterday. */
const boardLog = async (post, itemIds) => {
  for (const [n, { daysAgo, at, item, ...row }] of rowsOf('log').entries()) {
    const day = new Date()
    day.setDate(day.getDate() - daysAgo)
    const [hours, minutes] = at.split(':').map(Number)
    day.setHours(hours, minutes, 0, 0)
    await post('log', { id: idOf('log', n), ...row, at: day.toISOString(), itemId: itemIds.get(item) ?? null })
  }
}

/** Takes of the simulated player; their notes are written short, and one has its sound. */
const boardTakes = async (post, putSound, chartIds) => {
  const ids = new Map()
  for (const [n, { chart, file, notes, sound, ...row }] of rowsOf('takes').entries()) {
    const text = read(`charts/${file}.txt`)
    const played = notes.map(([at, length, pitch, velocity]) => ({ at, for: length, pitch, velocity }))
    const { id } = await post('takes', {
      id: idOf('takes', n),
      ...row,
      text,
      chartId: chartIds.get(chart),
      notes: played,
    })
    if (sound) await putSound(id, readFileSync(join(ROOT, 'demo/sounds', sound)))
    ids.set(row.name, id)
  }
  return ids
}

/** `post` sends a row to a path and gives it as it was kept; `putSound` the sound of a take; `known` holds the ids of charts that are there, by title. */
export const boardFerry = async (post, putSound, known = new Map()) => {
  const charts = await boardCharts(post, known)
  for (const kind of ['ideas', 'routes']) await boardRows(post, kind, charts)
  const lines = await boardRows(post, 'lines', charts)
  const items = await boardItems(post, charts, lines)
  await boardLog(post, items)
  const takes = await boardTakes(post, putSound, charts)
  return { charts, items, takes }
}
