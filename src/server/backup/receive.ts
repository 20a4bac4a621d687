import { createWriteStream } from 'node:fs'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import busboy from 'busboy'
import { fieldProblem, Problem } from '../problems.ts'
import type { Database } from '../sql.ts'

/** All sounds, and all rows beside them. */
const MOST = 3 * 1024 * 1024 * 1024
const LOOKED_AT_EVERY = 16 * 1024 * 1024

/** Refuses what grows past the limit, or past what the disk can hold. */
const bounded = (db: Database): Transform => {
  let [bytes, looked] = [0, 0]
  return new Transform({
    transform(chunk: Buffer, _, done) {
      bytes += chunk.length
      if (bytes > MOST) return done(new Problem('too_large', `A backup may hold ${MOST / 1024 ** 3} GB.`))
      if (bytes - looked > LOOKED_AT_EVERY) {
        looked = bytes
        try {
          db.hasRoomFor(0)
        } catch (error) {
          return done(error as Error)
        }
      }
      done(null, chunk)
    },
  })
}

const ofForm = async (db: Database, body: Readable, type: string, path: string): Promise<void> => {
  const form = (() => {
    try {
      return busboy({ headers: { 'content-type': type }, limits: { files: 1 } })
    } catch {
      throw fieldProblem('', 'The body is no form.', '', ['multipart/form-data'])
    }
  })()
  let writing: Promise<void> | null = null
  form.on('file', (_, file) => {
    writing = pipeline(file, bounded(db), createWriteStream(path))
    writing.catch((error: Error) => form.destroy(error))
  })
  await pipeline(body, form).catch((error: unknown) => {
    throw error instanceof Problem ? error : fieldProblem('', 'The body is no form.', '', ['multipart/form-data'])
  })
  if (writing === null) throw fieldProblem('file', 'A file is missing.', '', ['a file'])
  await writing
}

/** Writes the backup that a request brings, in a form or as it is, to a file; never holds more than a piece of it. */
export const receive = async (db: Database, request: Request, path: string): Promise<void> => {
  db.hasRoomFor(0)
  const type = request.headers.get('content-type') ?? ''
  if (request.body === null) throw fieldProblem('', 'The body is empty.', '', ['a backup'])
  const body = Readable.fromWeb(request.body as ReadableStream)
  if (type.toLowerCase().startsWith('multipart/form-data')) return ofForm(db, body, type, path)
  if (!/^application\/(zip|octet-stream|x-zip-compressed)\b/i.test(type))
    throw new Problem('not_a_backup', 'Send the backup as application/zip, or in multipart/form-data.')
  return pipeline(body, bounded(db), createWriteStream(path))
}
