import { networkInterfaces } from 'node:os'

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]']
const WILDCARDS = ['0.0.0.0', '::']

const bracketed = (address: string): string => (address.includes(':') ? `[${address}]` : address)

/**
 * The host names this server answers to: loopback always, and what `HOST` lets in on purpose. A wildcard lets in the
 * machine's own addresses, so that a phone on the stand can be used, and never a name that somebody else points here.
 */
export const servedHosts = (host: string | undefined): ReadonlySet<string> => {
  if (host === undefined || host === '') return new Set(LOOPBACK)
  if (!WILDCARDS.includes(host)) return new Set([...LOOPBACK, bracketed(host)])
  const own = Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => bracketed(i.address)))
  return new Set([...LOOPBACK, ...own])
}

const nameOf = (hostHeader: string): string => hostHeader.replace(/:\d+$/, '').toLowerCase()

export const isServedHost = (hostHeader: string | null, hosts: ReadonlySet<string>): boolean =>
  hostHeader !== null && hosts.has(nameOf(hostHeader))

const WRITES = ['POST', 'PUT', 'PATCH', 'DELETE']

/** A write may come from a script (no Origin) or from a page this server itself served at the same port. */
export const mayWrite = (request: Request, hosts: ReadonlySet<string>): boolean => {
  if (!WRITES.includes(request.method)) return true
  const origin = request.headers.get('origin')
  if (origin === null) return !['cross-site', 'same-site'].includes(request.headers.get('sec-fetch-site') ?? '')
  if (!URL.canParse(origin)) return false
  const { host, protocol } = new URL(origin)
  const port = (h: string) => /:(\d+)$/.exec(h)?.[1] ?? ''
  return (
    protocol.startsWith('http') && hosts.has(nameOf(host)) && port(host) === port(request.headers.get('host') ?? '')
  )
}
