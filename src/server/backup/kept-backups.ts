import { mkdir, readdir, rm, stat } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Problem } from '../problems.ts'
import type { Database } from '../sql.ts'
import type { Manifest, Occasion } from './manifest.ts'
import { openBackup } from './read-backup.ts'
import { isUnderWay, nameUnderWay } from './under-way.ts'
import { backupNames } from './whole.mjs'
import { stateOf, writeBackup } from './write-backup.ts'

/** So many of the backups that the program makes by itself are kept. */
const MOST_KEPT = 10
/** The sounds of takes go into them as far as they come to this; else they stay where they are, beside the backup. */
const MOST_SOUND = 64 * 1024 * 1024

const folderOf = (directory: string): string => join(directory, 'backups')

/** Of a backup that stands in the data directory; throws where there is none of that name. */
export const keptPath = async (directory: string, name: string): Promise<string> => {
  const path = join(folderOf(directory), basename(name))
  const isFile = (await stat(path).catch(() => null))?.isFile() ?? false
  if (!/^[\w-]+\.zip$/.test(name) || !isFile) throw new Problem('not_found', `There is no backup ${name}.`)
  return path
}

/** A path for a backup that is on its way in or out, and is not listed. */
export const passingPath = async (directory: string): Promise<string> => {
  const folder = join(folderOf(directory), 'passing')
  await mkdir(folder, { recursive: true })
  return join(folder, `${nameUnderWay()}.zip`)
}

/** Removes what was on its way when a program was cut off. */
export const clearPassing = async (directory: string): Promise<void> => {
  const folder = folderOf(directory)
  const passing = (await readdir(join(folder, 'passing')).catch(() => [])).map((name) => join('passing', name))
  const making = (await readdir(folder).catch(() => [])).filter((name) => name.startsWith('making-'))
  for (const name of [...passing, ...making])
    if (!isUnderWay(basename(name))) await rm(join(folder, name), { recursive: true, force: true })
}

/** What is told of a backup, from its own manifest. */
export const told = ({ version, schema, made, occasion, holds, sounds, soundsLeft }: Manifest) => ({
  ...{ version, schema, made, occasion, holds, sounds, soundsLeft },
})

const manifestAt = async (db: Database, name: string): Promise<Manifest | null> => {
  try {
    const backup = await openBackup(join(folderOf(db.directory), name), db.schemaVersion)
    backup.close()
    return backup.manifest
  } catch {
    return null
  }
}

/** The backups of the data directory, newest first; one that does not read is told as such. */
export const listBackups = async (db: Database) =>
  Promise.all(
    backupNames(db.directory).map(async (name) => {
      const manifest = await manifestAt(db, name)
      const { size } = await stat(join(folderOf(db.directory), name))
      return { name, bytes: size, readable: manifest !== null, ...(manifest && told(manifest)) }
    }),
  )

/** Their names sort by the moment they were made. */
const nameNow = (occasion: Occasion): string =>
  `${new Date().toISOString().slice(0, 23).replace('T', '_').replaceAll(/[:.]/g, '-')}-${occasion.replaceAll(' ', '-')}.zip`

const prune = async (directory: string): Promise<void> => {
  for (const name of backupNames(directory).slice(MOST_KEPT)) await rm(join(folderOf(directory), name), { force: true })
}

/** Keeps a backup in the data directory and lets the oldest go; gives its name. */
export const keepBackup = async (db: Database, occasion: Occasion, version: string): Promise<string> => {
  await mkdir(folderOf(db.directory), { recursive: true })
  const name = nameNow(occasion)
  await writeBackup(db, join(folderOf(db.directory), name), { occasion, mostSound: MOST_SOUND, version })
  await prune(db.directory)
  return name
}

/** Whether anything was written since the last backup. */
export const hasNews = async (db: Database): Promise<boolean> => {
  const [last] = backupNames(db.directory)
  const state = await db.snapshot(stateOf)
  return last === undefined || (await manifestAt(db, last))?.state !== state
}

/** Keeps one where anything was written since the last. */
export const keepBackupOfNews = async (db: Database, occasion: Occasion, version: string): Promise<string | null> => {
  return (await hasNews(db)) ? keepBackup(db, occasion, version) : null
}
