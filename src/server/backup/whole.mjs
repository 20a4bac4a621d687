import { existsSync, readdirSync, statSync } from 'node:fs'
import { join } from 'node:path'

const CONTROL_BYTES = 8192
const CATALOGUES = ['base/1', 'base/5']

const sizeOf = (path) => (existsSync(path) ? statSync(path).size : 0)
const membersOf = (path) => (existsSync(path) ? readdirSync(path) : [])

/**
 * Whether a database folder has what every whole one has, so that nothing is made anew over the remains of a damaged one.
 * A folder that is not there at all is whole: there is nothing yet. (Used before anything is built, hence no types.)
 * @param {string} folder
 */
export const looksWhole = (folder) =>
  !existsSync(folder) ||
  (sizeOf(join(folder, 'PG_VERSION')) > 0 &&
    sizeOf(join(folder, 'global/pg_control')) === CONTROL_BYTES &&
    membersOf(join(folder, 'pg_wal')).some((name) => /^[0-9A-F]{24}$/.test(name)) &&
    CATALOGUES.every((c) => membersOf(join(folder, c)).length > 100) &&
    membersOf(join(folder, 'pg_xact')).length > 0)

/** The backups of a data directory, newest first. @param {string} directory */
export const backupNames = (directory) =>
  membersOf(join(directory, 'backups'))
    .filter((name) => name.endsWith('.zip'))
    .sort()
    .reverse()

/** @param {string} directory */
const offer = (directory) => {
  const [last] = backupNames(directory)
  return last === undefined
    ? 'There is no backup of it here: bring it back from a copy of your own.'
    : `The last backup is ${last}. To go back to it: npm start -- --go-back (what is damaged stays beside it, in a folder of its own).`
}

/** @param {string} directory */
export const damagedSentence = (directory) =>
  `The data in ${directory} is damaged and was not opened, so that nothing of it is lost by guessing. ${offer(directory)}`

/** @param {string} directory */
export const goneSentence = (directory) =>
  `The data in ${directory} is gone, but backups of it are there. ${offer(directory)}`
