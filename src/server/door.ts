import type { APIRoute } from 'astro'
import type { ObjectSchema } from 'joi'
import { check, checkJson, checkQuery } from './check.ts'
import { Problem, type ProblemCode, problemResponse } from './problems.ts'

export const BODY_LIMIT = 2 * 1024 * 1024
/** An hour of fast notes. */
export const TAKE_LIMIT = 8 * 1024 * 1024
export const IMPORT_LIMIT = 10 * 1024 * 1024

/** The query, checked. */
export const readQuery = <T>(url: URL, schema: ObjectSchema<T>): T => checkQuery(url.searchParams, schema)

/** So much past the limit is still read, and thrown away, so that a client hears why before its connection is cut. */
const DRAINED = 8

/** Reads a body while counting, so that nobody can make the program hold more than the limit. */
export const readBytes = async (request: Request, limit: number): Promise<Uint8Array> => {
  const pieces: Uint8Array[] = []
  let size = 0
  const reader = request.body?.getReader()
  for (;;) {
    const piece = await reader?.read()
    if (!piece || piece.done) break
    size += piece.value.length
    if (size <= limit) pieces.push(piece.value)
    else pieces.length = 0
    if (size > limit * DRAINED) {
      await reader?.cancel()
      break
    }
  }
  if (size > limit) throw new Problem('too_large', `A body may hold ${limit / 1024 / 1024} MB.`)
  return Buffer.concat(pieces)
}

/** The bytes of a JSON body, and of none where it may be left out. */
export const jsonBytes = async (request: Request, optional = false, limit = BODY_LIMIT): Promise<Uint8Array> => {
  const bytes = await readBytes(request, limit)
  if (optional && bytes.length === 0) return bytes
  const type = request.headers.get('content-type')?.split(';')[0]?.trim().toLowerCase()
  if (type !== 'application/json') throw new Problem('not_json', 'Send application/json.')
  return bytes
}

/** A small JSON body, checked. `optional` lets an empty body stand for `{}`. */
export const readBody = async <T>(request: Request, schema: ObjectSchema<T>, optional = false): Promise<T> => {
  const bytes = await jsonBytes(request, optional)
  return bytes.length === 0 && optional ? check(schema, {}) : checkJson(bytes, schema)
}

/** The bytes of a form with a file, within the limit of imports. */
export const formBytes = async (request: Request): Promise<{ readonly type: string; readonly body: Uint8Array }> => {
  const type = request.headers.get('content-type') ?? ''
  if (!type.toLowerCase().startsWith('multipart/form-data'))
    throw new Problem('not_a_form', 'Send multipart/form-data with one file.')
  return { type, body: await readBytes(request, IMPORT_LIMIT) }
}

export const json = (body: unknown, status = 200): Response => jsonText(JSON.stringify(body), status)

/** JSON that is text already. */
export const jsonText = (text: string, status = 200): Response =>
  new Response(text, {
    status,
    headers: { 'content-type': 'application/json; charset=utf-8', 'cache-control': 'no-store' },
  })

const fileName = (title: string): string => title.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'untitled'

/** A file to save, named for its title. */
export const download = (
  body: string | Uint8Array,
  title: string,
  { extension, type }: { readonly extension: string; readonly type: string },
): Response =>
  new Response(body as BodyInit, {
    headers: {
      'content-type': type,
      'cache-control': 'no-store',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${fileName(title)}.${extension}`)}`,
    },
  })

/** What a disk refuses while something is written, in the interface's words. */
const DISK: Readonly<Record<string, readonly [ProblemCode, string]>> = {
  ENOSPC: ['disk_full', 'The disk is full. Make room, and it goes on by itself.'],
  EROFS: ['read_only', 'The data cannot be written to: it is read-only for this program.'],
  EACCES: ['read_only', 'The data cannot be written to: it is read-only for this program.'],
}

/** An endpoint: one call, one answer; problems and failures become problem+json here and nowhere else. */
export const endpoint =
  (answer: (context: Parameters<APIRoute>[0]) => Promise<Response> | Response): APIRoute =>
  async (context) => {
    try {
      return await answer(context)
    } catch (error) {
      if (error instanceof Problem) return problemResponse(error)
      const disk = DISK[(error as NodeJS.ErrnoException).code ?? '']
      if (disk) return problemResponse(new Problem(...disk))
      console.error(error)
      return problemResponse(new Problem('failed', 'The program failed at this; what was kept before is safe.'))
    }
  }

/** For methods an address does not take. */
export const notAllowed = endpoint(({ request }) => {
  throw new Problem('method_not_allowed', `${request.method} is not taken here.`)
})
