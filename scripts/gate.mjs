// In front of the program: what the framework cannot take is answered here, in the interface's words.
import { AsyncLocalStorage } from 'node:async_hooks'
import sirv from 'sirv'
import { FROM, isFromHere } from '../src/server/devices/where.mjs'
import { SAFE_HEADERS } from '../src/server/headers.mjs'

const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']

const refuse = (response, status, code, title, detail) => {
  const body = JSON.stringify({ type: `/problems/${code}`, title, status, code, detail, errors: [] })
  response.writeHead(status, {
    'content-type': 'application/problem+json',
    'cache-control': 'no-store',
    connection: 'close',
  })
  response.end(body)
}

/** The path of an address of this server whose escapes are text; null for any other. */
const pathOf = (url) => {
  try {
    const path = decodeURIComponent(url.split(/[?#]/, 1)[0])
    return url.startsWith('/') && URL.canParse(`http://here${url}`) ? path : null
  } catch {
    return null
  }
}

/** A query whose escapes are no text is read as far as it goes, as browsers do. */
const readable = (url) => {
  try {
    decodeURI(url)
    return url
  } catch {
    const at = url.indexOf('?')
    return `${url.slice(0, at)}?${new URLSearchParams(url.slice(at + 1))}`
  }
}

/** An endpoint of the framework's that nothing here uses: it would fetch and compute for whoever asks. */
const SHUT = /^\/+_image(\/|$)/

const YEAR_S = 365 * 24 * 60 * 60
/** Named by a hash of what they hold. */
const NEVER_CHANGE = /^\/_astro\//

/** Files of the interface, in the smallest of the ways they were compressed that the browser reads; others go on. */
const fileServer = (folder) => {
  const serve = sirv(folder, {
    ...{ brotli: true, gzip: true, etag: true, extensions: [], maxAge: YEAR_S, immutable: true },
    setHeaders: (response, path) => {
      if (!NEVER_CHANGE.test(path)) response.setHeader('Cache-Control', 'no-cache')
    },
  })
  return (request, response, next) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return next()
    const { range } = request.headers
    // Files are small and come whole.
    delete request.headers.range
    return serve(request, response, () => {
      if (range !== undefined) request.headers.range = range
      return next()
    })
  }
}

/** Comes when a client has taken what it was sent, or is gone. */
const roomOf = (response) => () =>
  new Promise((resolve) => {
    if (!response.writableNeedDrain || response.destroyed) return resolve()
    const done = () => {
      response.off('drain', done).off('close', done)
      resolve()
    }
    response.on('drain', done).on('close', done)
  })

/** What is answered asks here for room: the framework passes it nothing of the connection. */
const rooms = new AsyncLocalStorage()
globalThis[Symbol.for('crossfade.rooms')] = rooms

const ADMIT = Symbol.for('crossfade.admit')

/** Who asks: this machine, a device that was let in, or somebody else, of whom the program knows nothing while it cannot say. */
const whoAsks = ({ socket, headers }) => {
  if (isFromHere(socket.remoteAddress, headers)) return 'here'
  return globalThis[ADMIT]?.(headers.cookie ?? '').catch(() => 'elsewhere') ?? 'elsewhere'
}

/** Somebody from elsewhere is led to where a code is asked for; a script is told so. */
const turnAway = (path, response) => {
  if (path.startsWith('/api/') || path === '/health')
    return refuse(
      response,
      401,
      'not_let_in',
      'This device is not let in',
      'This device is not let in, or no longer: give the code that Set-up shows at the machine itself.',
    )
  response.writeHead(303, { location: '/door', 'cache-control': 'no-store' })
  response.end()
}

/** Nothing that goes wrong here ends the program. */
export const gate = (handler, folder) => {
  const files = fileServer(folder)
  return (request, response) =>
    pass(files, handler, request, response).catch((error) => {
      console.error(error)
      if (response.headersSent) return response.destroy()
      return refuse(response, 500, 'failed', 'The program failed at this', 'The program failed at this.')
    })
}

const pass = async (files, handler, request, response) => {
  const { method, url } = request
  for (const [name, value] of Object.entries(SAFE_HEADERS)) response.setHeader(name, value)
  if (!METHODS.includes(method))
    return refuse(
      response,
      405,
      'method_not_allowed',
      'This address does not take that method',
      `${method} is not taken here.`,
    )
  const path = pathOf(url)
  if (path === null)
    return refuse(
      response,
      400,
      'bad_request',
      'The request is not in the agreed form',
      'The address is not text in UTF-8.',
    )
  if (SHUT.test(path))
    return refuse(response, 404, 'not_found', 'There is nothing at this address', 'There is nothing at this address.')
  request.headers[FROM] = await whoAsks(request)
  if (request.headers[FROM] === 'elsewhere' && path !== '/door') return turnAway(path, response)
  request.url = readable(url)
  return files(request, response, () => rooms.run(roomOf(response), () => handler(request, response)))
}
