import { isIPv4 } from 'node:net'
import { networkInterfaces } from 'node:os'

/** The gate writes here where a request comes from, over whatever a client wrote. */
export const FROM = 'x-crossfade-from'

/**
 * An address as the system tells it of a socket, without the mark of IPv4 inside IPv6.
 * @param {string} address
 */
const plain = (address) => address.replace(/^::ffff:(?=\d+\.)/i, '')

/** @param {string} address */
const isLoopback = (address) => address === '::1' || (isIPv4(address) && address.startsWith('127.'))

/**
 * The addresses of this machine, in every network it is in.
 * @returns {readonly string[]}
 */
export const ownAddresses = () =>
  Object.values(networkInterfaces()).flatMap((list) => (list ?? []).map((i) => i.address))

/** Headers by which a reverse proxy says for whom it asks. */
const PROXIED = ['forwarded', 'x-forwarded-for', 'x-forwarded-host', 'x-real-ip', 'via']

/**
 * Whether a request comes from the machine the program runs on: by a socket of its own, and not through a proxy, which
 * asks from here for somebody else.
 * @param {string | undefined} remote
 * @param {Readonly<Record<string, unknown>>} headers
 * @param {() => readonly string[]} own
 */
export const isFromHere = (remote, headers, own = ownAddresses) => {
  if (remote === undefined || PROXIED.some((name) => headers[name] !== undefined)) return false
  const address = plain(remote)
  return isLoopback(address) || own().includes(address)
}

/** Networks that never are the open net, a house's likeliest first. */
const HOUSES = [
  /^192\.168\./,
  /^10\./,
  /^172\.(1[6-9]|2\d|3[01])\./,
  /^100\.(6[4-9]|[7-9]\d|1[01]\d|12[0-7])\./,
  /^169\.254\./,
  /^192\.0\.2\./,
]

/**
 * The addresses at which a telephone in the same house can find this machine, the likeliest first; none of the open net.
 * @param {readonly string[]} own
 * @returns {readonly string[]}
 */
export const houseAddresses = (own = ownAddresses()) =>
  HOUSES.flatMap((house) => own.filter((address) => house.test(address)))
