// npm run dev: the source served as it is written, on the data in CROSSFADE_DATA or data/.
import { resolve } from 'node:path'
import { ensureDatabase, ensureInstalled, ROOT, refuseIfTaken } from './prepare.mjs'

process.env.CROSSFADE_DATA = resolve(ROOT, process.env.CROSSFADE_DATA ?? 'data')
await ensureInstalled()
await refuseIfTaken(process.env.CROSSFADE_DATA)
ensureDatabase(process.env.CROSSFADE_DATA)
// Nothing outside is asked for newer versions.
process.env.CI ??= 'true'
const { dev } = await import('astro')
const host = process.env.HOST ?? '127.0.0.1'
const server = await dev({ root: ROOT, logLevel: 'warn', server: { host, port: Number(process.env.PORT ?? 4321) } })
const stop = async () => {
  await server.stop()
  await globalThis[Symbol.for('crossfade.close')]?.()
  process.exit(0)
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
console.log(`http://${host}:${server.address.port}/`)
