// npm start: the player's own data, in CROSSFADE_DATA or data/.
import { resolve } from 'node:path'
import { ensureBuilt, ensureDatabase, ensureInstalled, ROOT, refuseIfTaken } from './prepare.mjs'

process.env.CROSSFADE_DATA = resolve(ROOT, process.env.CROSSFADE_DATA ?? 'data')
await ensureInstalled()
await ensureBuilt()
await refuseIfTaken(process.env.CROSSFADE_DATA)
ensureDatabase(process.env.CROSSFADE_DATA)
const { serve } = await import('./serve.mjs')
console.log(await serve())
