import { createHash } from 'node:crypto'
import { accessSync, constants, mkdirSync, realpathSync } from 'node:fs'
import { createServer } from 'node:net'

/**
 * Takes a data directory for this process alone. The name is freed by the system at once when the process ends, kill -9
 * included, because it is an abstract socket and not a file. (Linux only.)
 * @param {string} directory made when missing
 * @returns {Promise<() => Promise<void>>} what gives the directory back; rejects with code `EADDRINUSE` where another has it
 */
export const lockDirectory = async (directory) => {
  mkdirSync(directory, { recursive: true })
  const name = createHash('sha1').update(realpathSync(directory)).digest('hex')
  const socket = createServer()
  await new Promise((resolve, reject) => {
    socket.once('error', reject)
    socket.listen(`\0crossfade-${name}`, () => resolve(undefined))
  })
  socket.unref()
  return () => new Promise((resolve) => socket.close(() => resolve(undefined)))
}

/** @param {string} directory */
export const readOnlySentence = (directory) =>
  `The data directory ${directory} cannot be written to: it is read-only for this program.`

/**
 * Why a data directory could not be taken, in words; null where it is none of ours to say.
 * @param {string} directory
 * @param {unknown} error
 */
export const whyNotTaken = (directory, error) => {
  const { code } = /** @type {NodeJS.ErrnoException} */ (error)
  if (code === 'EADDRINUSE') return takenSentence(directory)
  return code === 'EROFS' || code === 'EACCES' || code === 'EPERM' ? readOnlySentence(directory) : null
}

/** @param {string} directory */
export const isWritable = (directory) => {
  try {
    accessSync(directory, constants.W_OK)
    return true
  } catch {
    return false
  }
}

/** @param {string} directory */
export const takenSentence = (directory) =>
  `The data directory ${directory} is in use by another Crossfade. Stop that one first, or name another directory in CROSSFADE_DATA.`
