// Listeners for other machines of the house: at the house's addresses only, and only while the door stands open.
import { createServer } from 'node:http'
import { houseAddresses } from '../src/server/devices/where.mjs'

/** The machine may join a network, or leave one, while the door is open. */
const LOOKED_EVERY = 5000
const EVERYWHERE = ['0.0.0.0', '::']

/** So long a client has for its headers, for its body, and to take what it is sent, ms; and how many there may be. */
const BOUNDS = {
  headersTimeout: 10_000,
  requestTimeout: 120_000,
  keepAliveTimeout: 5000,
  connectionsCheckingInterval: 2000,
}
const IDLE = 120_000
const MOST_CLIENTS = 400

/** A server that waits for no client for ever. */
export const boundedServer = (handler) => {
  const server = createServer(BOUNDS, handler).setTimeout(IDLE)
  server.maxConnections = MOST_CLIENTS
  return server
}

const listening = (handler, port, address) =>
  new Promise((resolve) => {
    const server = boundedServer(handler)
    server.once('error', () => resolve(null))
    server.listen(port, address, () => resolve(server))
  })

/** What opens and shuts them; `host` is where the program listens anyway. */
export const outside = (handler, port, host) => {
  const listeners = new Map()
  const isEverywhere = EVERYWHERE.includes(host)
  let isOpen = false
  const shut = (address) => {
    const server = listeners.get(address)
    listeners.delete(address)
    server?.close()
    server?.closeAllConnections()
  }
  const follow = async () => {
    const wanted = isOpen && !isEverywhere ? houseAddresses().filter((address) => address !== host) : []
    for (const address of [...listeners.keys()].filter((a) => !wanted.includes(a))) shut(address)
    for (const address of wanted.filter((a) => !listeners.has(a))) {
      listeners.set(address, null)
      const server = await listening(handler, port, address)
      if (server && isOpen) listeners.set(address, server)
      else {
        listeners.delete(address)
        server?.close()
      }
    }
  }
  setInterval(() => void follow(), LOOKED_EVERY).unref()
  const found = () => {
    const open = houseAddresses().filter((a) => isEverywhere || listeners.get(a) || a === host)
    return open.map((a) => `http://${a}:${port}/`)
  }
  return {
    show: async (open) => {
      isOpen = open
      await follow()
      return open ? found() : []
    },
  }
}
