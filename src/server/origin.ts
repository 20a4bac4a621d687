import { ownAddresses } from './devices/where.mjs'

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]']
const WILDCARDS = ['', '0.0.0.0', '::']

const bracketed = (address: string): string => (address.includes(':') ? `[${address}]` : address)

/**
 * The host names this server answers to: loopback, the machine's own addresses, so that a telephone that was let in finds
 * it, and what `HOST` and `CROSSFADE_NAME` (of a proxy in front) say on purpose; never a name somebody else points here.
 */
export const servedHosts = (
  { HOST = '', CROSSFADE_NAME = '' }: Readonly<Record<string, string | undefined>>,
  own: readonly string[] = ownAddresses(),
): ReadonlySet<string> => {
  const said = [WILDCARDS.includes(HOST) ? [] : [bracketed(HOST)], CROSSFADE_NAME === '' ? [] : [CROSSFADE_NAME]].flat()
  return new Set([...LOOPBACK, ...own.map(bracketed), ...said.map((name) => name.toLowerCase())])
}

const nameOf = (hostHeader: string): string => hostHeader.replace(/:\d+$/, '').toLowerCase()

export const isServedHost = (hostHeader: string | null, hosts: ReadonlySet<string>): boolean =>
  hostHeader !== null && hosts.has(nameOf(hostHeader))

const ELSEWHERE = ['cross-site', 'same-site']
const isFromElsewhere = (request: Request): boolean => ELSEWHERE.includes(request.headers.get('sec-fetch-site') ?? '')

/** A page of another site may lead here, but not have answers worked out for it: what browsers say of it is believed. */
export const mayRead = (request: Request): boolean =>
  !new URL(request.url).pathname.startsWith('/api/') || !isFromElsewhere(request)

const WRITES = ['POST', 'PUT', 'PATCH', 'DELETE']

/** A write may come from a script (no Origin) or from a page this server itself served at the same port. */
export const mayWrite = (request: Request, hosts: ReadonlySet<string>): boolean => {
  if (!WRITES.includes(request.method)) return true
  const origin = request.headers.get('origin')
  if (origin === null) return !isFromElsewhere(request)
  if (!URL.canParse(origin)) return false
  const { host, protocol } = new URL(origin)
  const port = (h: string) => /:(\d+)$/.exec(h)?.[1] ?? ''
  return (
    protocol.startsWith('http') && hosts.has(nameOf(host)) && port(host) === port(request.headers.get('host') ?? '')
  )
}
