// Serves the built program in this process and prints its address when it answers.
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { gate } from './gate.mjs'
import { boundedServer, outside } from './outside.mjs'
import { ROOT } from './prepare.mjs'

const CLOSE = Symbol.for('crossfade.close')
const OUTSIDE = Symbol.for('crossfade.outside')

const shownHost = (host) => (host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host)

const listen = (server, port, host) =>
  new Promise((resolve) => {
    server.once('error', (error) => {
      console.error(
        error.code === 'EADDRINUSE'
          ? `Port ${port} is in use. Name another one in PORT (PORT=0 takes a free one).`
          : error.message,
      )
      process.exit(1)
    })
    server.listen(port, host, resolve)
  })

/** A stop takes so long at most, ms: what is kept is safe without it. */
const PATIENCE = 1600
/** The database runs on the thread that hears signals: where that is held up, another thread ends the program. */
const LAST = 1900
const endAtLast = () => {
  const watch = `setTimeout(() => process.kill(process.pid, 'SIGKILL'), ${LAST})`
  new Worker(watch, { eval: true }).unref()
}

const stopOn = (server, others) => {
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    server.close()
    void others.show(false)
    server.closeAllConnections()
    endAtLast()
    setTimeout(() => process.exit(0), PATIENCE)
    await globalThis[CLOSE]?.()
    process.exit(0)
  }
  process.on('SIGTERM', stop)
  process.on('SIGINT', stop)
}

/** Resolves with the address once the data is open; a server that cannot open its data says why and exits with 1. */
export const serve = async ({
  host = process.env.HOST ?? '127.0.0.1',
  port = Number(process.env.PORT ?? 4321),
} = {}) => {
  process.env.NODE_ENV = 'production'
  process.env.ASTRO_NODE_AUTOSTART = 'disabled'
  process.env.ASTRO_NODE_LOGGING = 'disabled'
  const { handler } = await import(join(ROOT, 'dist/server/entry.mjs'))
  const gated = gate(handler, join(ROOT, 'dist/client'))
  const server = boundedServer(gated)
  await listen(server, port, host)
  const own = server.address().port
  const others = outside(gated, own, host)
  globalThis[OUTSIDE] = others
  stopOn(server, others)
  const address = `http://${shownHost(host)}:${own}/`
  // The first page is made ready while the data opens.
  const [health] = await Promise.all([fetch(`${address}api/v1/health`), fetch(address).catch(() => null)])
  if (!health.ok) {
    const { code, detail } = await health.json()
    console.error(detail)
    if (code !== 'damaged') process.exit(1)
  }
  return address
}
