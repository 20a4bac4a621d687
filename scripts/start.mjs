// npm start: the player's own data, in CROSSFADE_DATA or data/. --go-back [name] begins from the last backup, or a given one.
import { resolve } from 'node:path'
import { ensureBuilt, ensureDatabase, ensureInstalled, putDamagedAside, ROOT, refuseIfTaken } from './prepare.mjs'

const data = resolve(ROOT, process.env.CROSSFADE_DATA ?? 'data')
process.env.CROSSFADE_DATA = data
await ensureInstalled()
await ensureBuilt()
let backup = null
if (!process.env.DATABASE_URL) {
  await refuseIfTaken(data)
  const asked = process.argv.indexOf('--go-back')
  if (asked !== -1) backup = putDamagedAside(data, process.argv[asked + 1])
  ensureDatabase(data)
}
const { serve } = await import('./serve.mjs')
const address = await serve()
if (backup !== null) {
  const answer = await fetch(`${address}api/v1/restore`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ of: backup }),
  })
  if (!answer.ok) console.error((await answer.json()).detail)
  else console.log(`Gone back to ${backup}.`)
}
console.log(address)
