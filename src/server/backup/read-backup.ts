import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { PassThrough, type Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { type Entry, openPromise, type ZipFile } from 'yauzl'
import { Problem } from '../problems.ts'
import { checkRow, type KeptRow } from './check-row.ts'
import {
  MANIFEST,
  type Manifest,
  type Member,
  notABackup,
  readManifest,
  rowsMember,
  soundMember,
  takeOfMember,
} from './manifest.ts'
import { BACKED_UP, type BackedUp } from './tables.ts'

const MEGABYTE = 1024 * 1024
/** What a member may come to: a sound, and the rows of a table; and what a row, and the manifest. */
const MOST = {
  sound: 32 * MEGABYTE,
  rows: 1024 * MEGABYTE,
  row: 16 * MEGABYTE,
  manifest: 4 * MEGABYTE,
  members: 50_000,
}

/** A backup that was opened: its manifest is whole; what is in it is known to be whole once it was verified. */
export interface OpenBackup {
  readonly manifest: Manifest
  /** The rows of a table, each checked. */
  rows(table: BackedUp): AsyncIterable<KeptRow>
  /** Takes whose sound it holds. */
  readonly takes: readonly string[]
  sound(take: string, to: string): Promise<void>
  /** Reads everything through: every byte is as it was written, every row such as is kept. */
  verify(): Promise<void>
  close(): void
}

const damaged = (name: string): Error => notABackup(`${name} is damaged: it is not as it was written.`)

/** The bytes of a member, which fail at their end where they are not those that were written. */
const checked = (source: Readable, name: string, { bytes, sha256 }: Member): Readable => {
  const hash = createHash('sha256')
  let seen = 0
  const through = new PassThrough({
    transform(chunk: Buffer, _, done) {
      seen += chunk.length
      hash.update(chunk)
      done(seen > bytes ? damaged(name) : null, chunk)
    },
    flush(done) {
      done(seen === bytes && hash.digest('hex') === sha256 ? null : damaged(name))
    },
  })
  source.once('error', () => through.destroy(damaged(name)))
  through.once('close', () => source.destroy())
  return source.pipe(through)
}

const textOf = async (source: Readable, most: number): Promise<string> => {
  const pieces: Buffer[] = []
  let size = 0
  for await (const piece of source) {
    size += (piece as Buffer).length
    if (size > most) throw damaged(MANIFEST)
    pieces.push(piece as Buffer)
  }
  return Buffer.concat(pieces).toString()
}

const entriesOf = async (zip: ZipFile): Promise<ReadonlyMap<string, Entry>> => {
  const entries = new Map<string, Entry>()
  for await (const entry of zip.eachEntry()) {
    if (entries.size === MOST.members) throw notABackup('This file holds too many parts to be a backup.')
    entries.set(entry.fileName, entry)
  }
  return entries
}

/** The lines of a text; one longer than is kept is damage. */
async function* linesOf(source: Readable, name: string): AsyncGenerator<string> {
  const decoder = new TextDecoder()
  let rest = ''
  for await (const chunk of source) {
    const lines = (rest + decoder.decode(chunk as Buffer, { stream: true })).split('\n')
    rest = lines.pop() ?? ''
    if (rest.length > MOST.row) throw damaged(name)
    yield* lines
  }
}

/** Rows as they stand, one a line between brackets. */
async function* rowsOf(source: Readable, table: BackedUp): AsyncGenerator<KeptRow> {
  let n = 0
  for await (const line of linesOf(source, rowsMember(table.name)))
    if (line !== '[' && line !== ']') yield checkRow(line.endsWith(',') ? line.slice(0, -1) : line, table, ++n)
}

const openZip = async (path: string): Promise<ZipFile> => {
  try {
    return await openPromise(path, { lazyEntries: true, autoClose: false, strictFileNames: true })
  } catch {
    throw notABackup('This is no backup, or it is cut off: the zip does not read.')
  }
}

const memberOf = (manifest: Manifest, name: string): Member => {
  const member = manifest.members[name]
  if (!member) throw damaged(name)
  return member
}

/** Opens a backup; throws in the player's words where it is none. `newest` is the schema that the program knows. */
export const openBackup = async (path: string, newest: number): Promise<OpenBackup> => {
  const zip = await openZip(path)
  try {
    const entries = await entriesOf(zip).catch((error: unknown) => {
      throw error instanceof Problem ? error : notABackup('This is no backup, or it is damaged.')
    })
    const raw = async (name: string): Promise<Readable> => {
      const entry = entries.get(name)
      if (!entry) throw notABackup(`${name} is missing: this is no backup, or not the whole of it.`)
      return zip.openReadStreamPromise(entry).catch(() => {
        throw damaged(name)
      })
    }
    const told = await textOf(await raw(MANIFEST), MOST.manifest).catch(() => {
      throw damaged(MANIFEST)
    })
    const manifest = readManifest(told, newest)
    const takes = Object.keys(manifest.members).flatMap((name) => takeOfMember(name) ?? [])
    const member = async (name: string): Promise<Readable> => {
      const told = memberOf(manifest, name)
      if (told.bytes > (takeOfMember(name) === null ? MOST.rows : MOST.sound)) throw damaged(name)
      return checked(await raw(name), name, told)
    }
    const rows = async function* (table: BackedUp) {
      yield* rowsOf(await member(rowsMember(table.name)), table)
    }
    const soundOf = (take: string) => member(soundMember(take))
    return {
      manifest,
      takes,
      rows,
      sound: async (take, to) => pipeline(await soundOf(take), createWriteStream(to, { flush: true })),
      verify: async () => {
        for (const table of BACKED_UP) for await (const _ of rows(table));
        for (const take of takes) for await (const _ of await soundOf(take));
      },
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}
