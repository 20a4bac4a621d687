// npm run demo: the ferry band's charts in a data directory of their own, loaded once. --fresh starts the demo over.
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { boardFerry } from './board.mjs'
import { ensureBuilt, ensureDatabase, ensureInstalled, ROOT, refuseIfTaken } from './prepare.mjs'

const data = resolve(ROOT, process.env.CROSSFADE_DATA ?? 'demo-data')
const mark = join(data, 'DEMO')
process.env.CROSSFADE_DATA = data
// The demo's data is its own, wherever the player's is.
delete process.env.DATABASE_URL

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
  const told = await answer.json()
  if (told.code === 'id_taken' && told.current) return told.current
  if (!answer.ok) throw new Error(`the demo's ${path} was refused: ${told.detail}`)
  return told
}

const putSound = async (id, body) => {
  const answer = await fetch(`${address}api/v1/takes/${id}/sound`, {
    method: 'PUT',
    headers: { 'content-type': 'audio/webm' },
    body,
  })
  if (!answer.ok) throw new Error(`the demo's sound was refused: ${await answer.text()}`)
}

if (existsSync(mark) && readFileSync(mark, 'utf8').trim() === 'new') {
  const { items } = await (await fetch(`${address}api/v1/charts?limit=200`)).json()
  await boardFerry(post, putSound, new Map(items.map((c) => [c.title, c.id])))
  writeFileSync(mark, 'loaded\n')
}
console.log(address)
