import { createReadStream } from 'node:fs'
import { rm, stat } from 'node:fs/promises'
import { Readable } from 'node:stream'
import { readBody, readQuery } from '../door.ts'
import { inTurn } from '../in-turn.ts'
import { type Database, MISSED, TELL } from '../sql.ts'
import { checkAgain, foundDamage, store } from '../store.ts'
import { damageSentence } from './damage.ts'
import { keepBackupOfNews, keptPath, listBackups, passingPath, told } from './kept-backups.ts'
import { openBackup } from './read-backup.ts'
import { receive } from './receive.ts'
import { restore } from './restore.ts'
import { writeReadable } from './salvage.ts'
import { BACKUP_QUERY, RESTORE_BODY, RESTORE_QUERY, type RestoreAsked } from './schemas.ts'
import { backupNames } from './whole.mjs'
import { writeBackup } from './write-backup.ts'

/** Backups are made and brought in one at a time. */
const oneAtATime = inTurn()

const zipAnswer = async (path: string, name: string, whenSent: () => void): Promise<Response> => {
  const { size } = await stat(path)
  const source = createReadStream(path).once('close', whenSent)
  return new Response(Readable.toWeb(source) as ReadableStream, {
    headers: {
      'content-type': 'application/zip',
      'content-length': String(size),
      'cache-control': 'no-store',
      'content-disposition': `attachment; filename="${name}"`,
    },
  })
}

/** Everything that is kept, or everything of it that reads, as one file. */
export const backupAnswer = async (url: URL): Promise<Response> => {
  const { readable } = readQuery(url, BACKUP_QUERY)
  const db = await store()
  const path = await passingPath(db.directory)
  const asked = { occasion: 'asked for', mostSound: Number.POSITIVE_INFINITY, version: __VERSION__ } as const
  await oneAtATime(() => (readable ? writeReadable : writeBackup)(db, path, asked))
  const day = new Date().toISOString().slice(0, 10)
  return zipAnswer(path, `Crossfade ${day}.zip`, () => rm(path, { force: true }))
}

export const backupsAnswer = async () => {
  const damage = foundDamage()
  return {
    items: await listBackups(await store()),
    damage: damage.length === 0 ? null : damageSentence(damage),
  }
}

export const keptBackupAnswer = async (name: string): Promise<Response> =>
  zipAnswer(await keptPath((await store()).directory, name), name, () => undefined)

/** What is here now, kept before it is put aside; null where it is damaged and not worth keeping. */
const keepBefore = async (db: Database): Promise<string | null> => {
  if (foundDamage().length > 0) return null
  const kept = await keepBackupOfNews(db, 'before going back', __VERSION__)
  return kept ?? backupNames(db.directory)[0] ?? null
}

const bring = async (db: Database, path: string, { how, look }: RestoreAsked) => {
  const backup = await openBackup(path, db.schemaVersion)
  try {
    await backup.verify()
    const holds = told(backup.manifest)
    if (look) return { ...holds, how: null, before: null, came: null }
    const before = await keepBefore(db)
    const came = await restore(db, backup, how)
    await db.query(TELL, [MISSED])
    await checkAgain()
    return { ...holds, how, before, came }
  } finally {
    backup.close()
  }
}

/** Looks into a backup, or brings it in: one that is sent, or one that stands in the data directory. */
export const restoreAnswer = async (request: Request, url: URL) => {
  const db = await store()
  if (request.headers.get('content-type')?.toLowerCase().startsWith('application/json')) {
    const { of, ...asked } = await readBody(request, RESTORE_BODY)
    const path = await keptPath(db.directory, of)
    return oneAtATime(() => bring(db, path, asked))
  }
  const asked = readQuery(url, RESTORE_QUERY)
  const path = await passingPath(db.directory)
  try {
    await receive(db, request, path)
    return await oneAtATime(() => bring(db, path, asked))
  } finally {
    await rm(path, { force: true })
  }
}
