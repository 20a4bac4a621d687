import { createReadStream } from 'node:fs'
import { mkdir, open, readdir, rm, stat } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Readable } from 'node:stream'
import { inTurn } from './in-turn.ts'
import { fieldProblem, Problem } from './problems.ts'
import { SOUNDS } from './queries.ts'
import { getRow } from './rows.ts'
import type { Database, Sql } from './sql.ts'

/** What the sound of a take may come to: an hour of Opus; and of all takes. */
const MOST_SOUND = 32 * 1024 * 1024
const MOST_OF_ALL = 2 * 1024 * 1024 * 1024
/** One request brings so much at most. */
export const MOST_PIECE = 8 * 1024 * 1024

export const SOUND_TYPES = ['audio/webm', 'audio/ogg', 'audio/wav'] as const

/** The folder of the data directory in which the sounds lie: a restore names another, in one step with the rows. */
export const soundFolder = async (directory: string, sql: Sql): Promise<string> => {
  const [place] = await sql.query<{ name: string }>(SOUNDS.folder)
  return join(directory, basename(place?.name ?? 'sounds'))
}
/** Ids are checked to be rows before they name a file. */
export const soundFile = (folder: string, id: string): string => join(folder, `${encodeURIComponent(id)}.sound`)
const folderOf = (db: Database): Promise<string> => soundFolder(db.directory, db)

/** One at a time: what is written of sounds, and a restore, which brings them into another folder. */
export const withSounds = inTurn()

const sizeOf = async (path: string): Promise<number> => (await stat(path).catch(() => null))?.size ?? 0

const sizeOfAll = async (folder: string): Promise<number> => {
  const files = await readdir(folder).catch(() => [])
  const sizes = await Promise.all(files.map((f) => sizeOf(join(folder, f))))
  return sizes.reduce((sum, s) => sum + s, 0)
}

const typeOf = (header: string | null): string => {
  const type = header?.split(';')[0]?.trim().toLowerCase() ?? ''
  if (SOUND_TYPES.some((t) => t === type)) return type
  throw new Problem('not_sound', `Send the sound as ${SOUND_TYPES.join(', ')}.`)
}

/**
 * Writes the sound of a take from a byte on: 0 begins it anew, its length goes on with it. On disk before it is answered.
 */
export const putSound = (db: Database, id: string, type: string | null, from: number, bytes: Uint8Array) =>
  withSounds(() => writeSound(db, id, type, from, bytes))

const writeSound = async (db: Database, id: string, type: string | null, from: number, bytes: Uint8Array) => {
  const own = typeOf(type)
  await getRow(db, 'takes', id)
  if (bytes.length === 0) throw fieldProblem('', 'The sound is empty.', '', ['some sound'])
  db.hasRoomFor(bytes.length)
  const folder = await folderOf(db)
  await mkdir(folder, { recursive: true })
  const path = soundFile(folder, id)
  const there = from === 0 ? 0 : await sizeOf(path)
  if (from !== there)
    throw new Problem('not_the_end', `${there} bytes of this sound are kept: go on from there.`, [], { bytes: there })
  if (there + bytes.length > MOST_SOUND)
    throw new Problem('too_large', `The sound of a take may hold ${MOST_SOUND / 1024 / 1024} MB.`)
  if (from === 0 && (await sizeOfAll(folder)) > MOST_OF_ALL)
    throw new Problem('too_large', 'The sounds of all takes hold 2 GB: remove some first.')
  const file = await open(path, from === 0 ? 'w' : 'r+')
  try {
    await file.write(bytes, 0, bytes.length, from)
    await file.sync()
  } finally {
    await file.close()
  }
  const sound = { type: own, bytes: there + bytes.length }
  await db.query(SOUNDS.tell, [id, JSON.stringify(sound)])
  return { id, ...sound }
}

const RANGE = /^bytes=(\d+)-(\d*)$/

/** The sound of a take, or the part of it that a player asks for. */
export const getSound = async (db: Database, id: string, range: string | null): Promise<Response> => {
  const row = await getRow(db, 'takes', id)
  const { type } = (row.sound ?? {}) as { readonly type?: string }
  const path = soundFile(await folderOf(db), id)
  const size = await sizeOf(path)
  if (type === undefined || size === 0) throw new Problem('not_found', 'This take has no sound.')
  const [, first, last] = RANGE.exec(range ?? '') ?? []
  const from = first === undefined ? 0 : Number(first)
  const to = Math.min(size - 1, last ? Number(last) : size - 1)
  const headers = new Headers({ 'content-type': type, 'accept-ranges': 'bytes', 'cache-control': 'no-store' })
  if (from > to) {
    headers.set('content-range', `bytes */${size}`)
    return new Response(null, { status: 416, headers })
  }
  headers.set('content-length', String(to - from + 1))
  if (first !== undefined) headers.set('content-range', `bytes ${from}-${to}/${size}`)
  const body = Readable.toWeb(createReadStream(path, { start: from, end: to })) as ReadableStream
  return new Response(body, { status: first === undefined ? 200 : 206, headers })
}

/** Removes the sound of a take; its notes stay. */
export const removeSound = (db: Database, id: string) =>
  withSounds(async () => {
    await getRow(db, 'takes', id)
    await rm(soundFile(await folderOf(db), id), { force: true })
    await db.query(SOUNDS.tell, [id, 'null'])
    return { id, sound: null }
  })
