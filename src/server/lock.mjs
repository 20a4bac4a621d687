import { createHash } from 'node:crypto'
import { accessSync, closeSync, constants, mkdirSync, openSync, realpathSync, statSync, unlinkSync } from 'node:fs'
import { connect, createServer } from 'node:net'
import { setTimeout as after } from 'node:timers/promises'

/**
 * A socket of this process; rejects with code `EADDRINUSE` where the name is another's.
 * @param {string} name
 * @returns {Promise<import('node:net').Server>}
 */
const listenOn = async (name) => {
  const socket = createServer((caller) => caller.on('error', () => undefined).destroy())
  await new Promise((resolve, reject) => {
    socket.once('error', reject)
    socket.listen(name, () => resolve(undefined))
  })
  socket.unref()
  return socket
}
/** @param {import('node:net').Server} socket */
const closed = (socket) => new Promise((resolve) => socket.close(() => resolve(undefined)))

/**
 * Whether a process answers at a socket; one that was killed leaves its socket behind and answers no more.
 * @param {string} path
 * @returns {Promise<'answers' | 'left behind' | 'none'>}
 */
const whoIsAt = (path) =>
  new Promise((resolve) => {
    const call = connect(path)
    call.once('connect', () => {
      call.destroy()
      resolve('answers')
    })
    call.once('error', (error) =>
      resolve(/** @type {NodeJS.ErrnoException} */ (error).code === 'ECONNREFUSED' ? 'left behind' : 'none'),
    )
  })

const taken = () => Object.assign(new Error('another process answers in this directory'), { code: 'EADDRINUSE' })

const IN_USE = 'in-use'
/** So long another that began in the same moment has to put its socket in the place of ours. */
const SAME_MOMENT = 20

/**
 * A socket in the directory itself, which is the same by whatever way and in whatever network one comes to it. Null where
 * its file system has no sockets.
 * @param {string} directory
 */
const listenIn = async (directory) => {
  // By its number the path is short enough, however long the directory's own is.
  const opened = openSync(directory, constants.O_RDONLY | constants.O_DIRECTORY)
  const path = `/proc/self/fd/${opened}/${IN_USE}`
  try {
    const who = await whoIsAt(path)
    if (who === 'answers') throw taken()
    if (who === 'left behind') unlinkSync(path)
    const socket = await listenOn(path)
    const { ino } = statSync(path)
    await after(SAME_MOMENT)
    if (statSync(path, { throwIfNoEntry: false })?.ino !== ino) throw taken()
    return { socket, opened }
  } catch (error) {
    closeSync(opened)
    if (NO_SOCKETS.includes(/** @type {NodeJS.ErrnoException} */ (error).code ?? '')) return null
    throw error
  }
}
const NO_SOCKETS = ['ENOTSUP', 'EOPNOTSUPP', 'EINVAL', 'ENOENT']

/**
 * Takes a data directory for this process alone: by an abstract socket of its name, which the system frees at once when
 * the process ends, kill -9 included, and by a socket in it. (Linux only.)
 * @param {string} directory made when missing
 * @returns {Promise<() => Promise<void>>} what gives the directory back; rejects with code `EADDRINUSE` where another has it
 */
export const lockDirectory = async (directory) => {
  mkdirSync(directory, { recursive: true })
  const name = createHash('sha1').update(realpathSync(directory)).digest('hex')
  const abstract = await listenOn(`\0crossfade-${name}`)
  try {
    const inside = await listenIn(directory)
    return async () => {
      // The path is unlinked as it closes, through the directory that is still open.
      if (inside) await closed(inside.socket)
      if (inside) closeSync(inside.opened)
      await closed(abstract)
    }
  } catch (error) {
    await closed(abstract)
    throw error
  }
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
