// What every command needs before it can run: packages, a build of the present source, a data directory with a database.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { backupNames, goneSentence } from '../src/server/backup/whole.mjs'
import { isWritable, lockDirectory, readOnlySentence, whyNotTaken } from '../src/server/lock.mjs'
import { compressFiles } from './compress.mjs'

export const ROOT = fileURLToPath(new URL('..', import.meta.url))
process.env.ASTRO_TELEMETRY_DISABLED = '1'

const hashOf = (paths) => {
  const hash = createHash('sha256')
  const add = (path) => {
    if (!existsSync(path)) return
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name))
    else hash.update(path.slice(ROOT.length)).update(readFileSync(path))
  }
  for (const path of paths) add(join(ROOT, path))
  return hash.digest('hex')
}

const stampHolds = (file, value) => existsSync(file) && readFileSync(file, 'utf8') === value

/** Runs a command to its end with its output shown; a failure ends this process with the same code. */
export const run = (command, args, options = {}) => {
  const done = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options })
  if (done.status !== 0) process.exit(done.status ?? 1)
}

/** One preparation at a time: a second one waits for the first. */
const underLock = async (work) => {
  const place = join(ROOT, '.astro')
  let said = false
  for (;;) {
    try {
      const unlock = await lockDirectory(place)
      try {
        return await work()
      } finally {
        await unlock()
      }
    } catch (error) {
      if (error.code !== 'EADDRINUSE') throw error
      if (!said) console.log('Waiting for another build to end.')
      said = true
      await new Promise((resolve) => setTimeout(resolve, 500))
    }
  }
}

export const ensureInstalled = () =>
  underLock(() => {
    const lock = hashOf(['package-lock.json'])
    const stamp = join(ROOT, 'node_modules/.crossfade-lock')
    if (stampHolds(stamp, lock)) return
    console.log('Installing packages.')
    run('npm', ['ci', '--include=dev', '--ignore-scripts', '--no-audit', '--no-fund'])
    writeFileSync(stamp, lock)
  })

export const ensureBuilt = () =>
  underLock(async () => {
    const source = hashOf([
      'src',
      'scripts/threads.mjs',
      'scripts/one-shell.mjs',
      'scripts/compress.mjs',
      'astro.config.mjs',
      'package-lock.json',
      'package.json',
      'tsconfig.json',
    ])
    const stamp = join(ROOT, 'dist/.crossfade-source')
    if (stampHolds(stamp, source)) return
    console.log('Building.')
    rmSync(join(ROOT, 'dist'), { recursive: true, force: true })
    run('node', ['node_modules/astro/astro.js', 'build', '--silent'])
    await compressFiles(join(ROOT, 'dist/client'))
    writeFileSync(stamp, source)
  })

/** Makes the database of a data directory in a short process of its own: making one takes much more memory than using it. */
export const ensureDatabase = (directory) => {
  mkdirSync(directory, { recursive: true })
  if (!isWritable(directory)) leave(readOnlySentence(directory))
  if (existsSync(join(directory, 'pg'))) return
  if (backupNames(directory).length > 0) leave(goneSentence(directory))
  run('node', [join(ROOT, 'scripts/initdb.mjs'), directory])
}

const leave = (sentence) => {
  console.error(sentence)
  process.exit(1)
}

/** Puts what is damaged of a data directory aside, so that a backup can be brought in; gives the name of that backup. */
export const putDamagedAside = (directory, name) => {
  const names = backupNames(directory)
  const found = name === undefined ? names[0] : names.find((n) => n === name)
  if (found === undefined)
    leave(
      names.length === 0
        ? `There is no backup in ${directory}.`
        : `There is no backup ${name} in ${directory}. There are: ${names.join(', ')}.`,
    )
  const folder = join(directory, 'pg')
  const aside = `${folder}.damaged-${new Date().toISOString().slice(0, 19).replaceAll(':', '-')}`
  if (existsSync(folder)) renameSync(folder, aside)
  // The sounds stay: a new database looks for them under this name.
  const sounds = readdirSync(directory).filter((name) => /^sounds-/.test(name))
  const latest = sounds
    .sort((a, b) => statSync(join(directory, a)).mtimeMs - statSync(join(directory, b)).mtimeMs)
    .pop()
  if (latest !== undefined && !existsSync(join(directory, 'sounds')))
    renameSync(join(directory, latest), join(directory, 'sounds'))
  run('node', [join(ROOT, 'scripts/initdb.mjs'), directory])
  return found
}

/** A data directory that another process has is a sentence on stderr and exit code 1. */
export const refuseIfTaken = async (directory) => {
  try {
    await (await lockDirectory(directory))()
  } catch (error) {
    const why = whyNotTaken(directory, error)
    if (why === null) throw error
    leave(why)
  }
}
