// npm run move -- --to <postgres://…, or a data directory>: carries everything over from where DATABASE_URL or CROSSFADE_DATA says.
import { resolve } from 'node:path'
import { ensureBuilt, ensureDatabase, ensureInstalled, ROOT, refuseIfTaken } from './prepare.mjs'

const asked = process.argv.indexOf('--to')
const to = asked === -1 ? undefined : process.argv[asked + 1]
if (!to) {
  console.error('Say where to: npm run move -- --to postgres://user@host/database, or --to a/data/directory.')
  process.exit(1)
}
const isServer = /^postgres(ql)?:/.test(to)
const from = resolve(ROOT, process.env.CROSSFADE_DATA ?? 'data')
const target = isServer ? from : resolve(ROOT, to)
process.env.CROSSFADE_DATA = from
await ensureInstalled()
await ensureBuilt()
for (const directory of [...(process.env.DATABASE_URL ? [] : [from]), ...(isServer ? [] : [target])]) {
  await refuseIfTaken(directory)
  ensureDatabase(directory)
}
const { serve } = await import('./serve.mjs')
await serve({ host: '127.0.0.1', port: 0 })
try {
  const counts = await globalThis[Symbol.for('crossfade.move')](isServer ? to : '', target)
  for (const [table, rows] of Object.entries(counts)) console.log(`${String(rows).padStart(8)} ${table}`)
  console.log(`Everything is in ${to}, and every row is as it was. What was moved stays where it is, too.`)
} catch (error) {
  console.error(error.message)
  process.exitCode = 1
}
await globalThis[Symbol.for('crossfade.close')]()
process.exit()
