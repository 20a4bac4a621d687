import { createHash } from 'node:crypto'
import { mkdirSync, realpathSync } from 'node:fs'
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
export const takenSentence = (directory) =>
  `The data directory ${directory} is in use by another Crossfade. Stop that one first, or name another directory in CROSSFADE_DATA.`
