import type { APIRoute } from 'astro'
import type { ObjectSchema } from 'joi'
import { type Chart, type Chord, type Result, readChart, readChord, readKey, type TextError } from '../core/index.ts'
import { fieldError, fieldProblem, Problem, problemResponse } from './problems.ts'

export const BODY_LIMIT = 2 * 1024 * 1024
export const IMPORT_LIMIT = 10 * 1024 * 1024

/** What the core could not read, as a problem that points into the field it came from; whole questions come first. */
export const textProblem = (path: string, e: TextError): Problem => {
  const expected = e.expected.length > 0 ? `expected ${e.expected.join(', ')}` : 'not expected here'
  const message = e.found ? `“${e.found}” is not understood: ${expected}` : `something is missing: ${expected}`
  const could = [...(e.questions ?? []), ...e.expected]
  return new Problem('bad_text', message, [{ path, message, at: e.at, found: e.found, expected: could }])
}

/** The value, or the core's error as a problem at `path`. */
export const orProblem = <T>(path: string, result: Result<T, TextError>): T => {
  if (!result.ok) throw textProblem(path, result.error)
  return result.value
}

export const chordAt = (path: string, symbol: string): Chord => orProblem(path, readChord(symbol))
/** The next chord, or null where none was given. */
export const nextAt = (path: string, symbol: string): Chord | null => (symbol === '' ? null : chordAt(path, symbol))

/** A chart's text, in the key that was sent with it or its own. */
export const chartAt = (text: string, key: string): Chart => {
  const chart = orProblem('text', readChart(text))
  return key === '' ? chart : { ...chart, key: orProblem('key', readKey(key)) }
}

const check = <T>(schema: ObjectSchema<T>, input: unknown): T => {
  const { value, error } = schema.validate(input, { abortEarly: false, convert: true })
  if (error === undefined) return value
  const errors = error.details.map((d) =>
    fieldError(d.path.join('.'), d.message.replaceAll('"', ''), d.context?.value, d.context?.valids?.map(String)),
  )
  throw new Problem('bad_request', errors.map((e) => e.message).join('; '), errors)
}

/** The query, checked. A parameter given twice is refused rather than guessed at. */
export const readQuery = <T>(url: URL, schema: ObjectSchema<T>): T => {
  const given: Record<string, string> = {}
  for (const [key, value] of url.searchParams) {
    if (key in given) throw fieldProblem(key, `${key} is given twice`, value, ['one value'])
    given[key] = value
  }
  return check(schema, given)
}

/** So much past the limit is still read, and thrown away, so that a client hears why before its connection is cut. */
const DRAINED = 8

/** Reads a body while counting, so that nobody can make the program hold more than the limit. */
const readBytes = async (request: Request, limit: number): Promise<Uint8Array> => {
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

/** The JSON body, checked. `optional` lets an empty body stand for `{}`. */
export const readBody = async <T>(request: Request, schema: ObjectSchema<T>, optional = false): Promise<T> => {
  const bytes = await readBytes(request, BODY_LIMIT)
  if (optional && bytes.length === 0) return check(schema, {})
  const type = request.headers.get('content-type')?.split(';')[0]?.trim().toLowerCase()
  if (type !== 'application/json') throw new Problem('not_json', 'Send application/json.')
  let parsed: unknown
  try {
    parsed = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    throw fieldProblem('', 'The body is not JSON.', '', ['JSON'])
  }
  return check(schema, parsed)
}

/** The one file of a multipart body, within the limit of imports. */
export const readFile = async (request: Request): Promise<{ readonly name: string; readonly bytes: Uint8Array }> => {
  const type = request.headers.get('content-type') ?? ''
  if (!type.toLowerCase().startsWith('multipart/form-data'))
    throw new Problem('not_a_form', 'Send multipart/form-data with one file.')
  const bytes = await readBytes(request, IMPORT_LIMIT)
  let form: FormData
  try {
    form = await new Response(bytes as Uint8Array<ArrayBuffer>, { headers: { 'content-type': type } }).formData()
  } catch {
    throw fieldProblem('', 'The body is no form.', '', ['multipart/form-data'])
  }
  const file = [...form.values()].find((v) => v instanceof File)
  if (!(file instanceof File)) throw fieldProblem('file', 'A file is missing.', '', ['a file'])
  return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }
}

export const json = (body: unknown, status = 200): Response =>
  new Response(JSON.stringify(body), {
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

/** An endpoint: one call, one answer; problems and failures become problem+json here and nowhere else. */
export const endpoint =
  (answer: (context: Parameters<APIRoute>[0]) => Promise<Response> | Response): APIRoute =>
  async (context) => {
    try {
      return await answer(context)
    } catch (error) {
      if (error instanceof Problem) return problemResponse(error)
      console.error(error)
      return problemResponse(new Problem('failed', 'The program failed at this; what was kept before is safe.'))
    }
  }

/** For methods an address does not take. */
export const notAllowed = endpoint(({ request }) => {
  throw new Problem('method_not_allowed', `${request.method} is not taken here.`)
})
