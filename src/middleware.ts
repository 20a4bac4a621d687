import { defineMiddleware } from 'astro:middleware'
import type { AsyncLocalStorage } from 'node:async_hooks'
import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import { SAFE_HEADERS, WORTH_COMPRESSING } from './server/headers.mjs'
import { isServedHost, mayRead, mayWrite, servedHosts } from './server/origin.ts'
import { Problem, problemResponse } from './server/problems.ts'

/** On a thread of its own: what is answered may be long. */
const packed = promisify<Uint8Array, Uint8Array<ArrayBuffer>>(gzip)

/** A stream of news is never whole. */
const COMPRESSIBLE = /^(text\/(?!event-stream)|application\/(json|problem\+json))/

const compressed = async (request: Request, response: Response): Promise<Response> => {
  const type = response.headers.get('content-type') ?? ''
  if (!COMPRESSIBLE.test(type) || !/\bgzip\b/.test(request.headers.get('accept-encoding') ?? '')) return response
  const body = Buffer.from(await response.arrayBuffer())
  const headers = new Headers(response.headers)
  headers.append('vary', 'accept-encoding')
  if (body.length < WORTH_COMPRESSING) return new Response(body, { status: response.status, headers })
  headers.set('content-encoding', 'gzip')
  headers.delete('content-length')
  return new Response(await packed(body), { status: response.status, headers })
}

/** Where the gate says when a client has room. */
const ROOMS = Symbol.for('crossfade.rooms')

/**
 * A file, or the news, as fast as the client takes them: the framework writes all that comes, and what is not taken would
 * wait in memory. While developing nobody says when there is room.
 */
const asTaken = (response: Response): Response => {
  const room = (globalThis as { [ROOMS]?: AsyncLocalStorage<() => Promise<void>> })[ROOMS]?.getStore()
  if (!room || !response.body || COMPRESSIBLE.test(response.headers.get('content-type') ?? '')) return response
  const paced = new TransformStream<Uint8Array, Uint8Array>({
    transform: async (piece, client) => {
      await room()
      client.enqueue(piece)
    },
  })
  return new Response(response.body.pipeThrough(paced), response)
}

const guarded = async (request: Request, next: () => Promise<Response>): Promise<Response> => {
  const hosts = servedHosts(process.env)
  if (!isServedHost(request.headers.get('host'), hosts))
    return problemResponse(new Problem('foreign_host', 'Ask for this server by its own address.'))
  if (!mayWrite(request, hosts))
    return problemResponse(new Problem('foreign_origin', 'This write came from another site and was not carried out.'))
  if (!mayRead(request))
    return problemResponse(
      new Problem('foreign_origin', 'This was asked by a page of another site and was not answered.'),
    )
  try {
    return await next()
  } catch (error) {
    console.error(error)
    return problemResponse(new Problem('failed', 'The program failed at this; what was kept before is safe.'))
  }
}

export const onRequest = defineMiddleware(async ({ request }, next) => {
  const response = asTaken(await compressed(request, await guarded(request, next)))
  for (const [name, value] of Object.entries(SAFE_HEADERS))
    if (!response.headers.has(name)) response.headers.set(name, value)
  return response
})
