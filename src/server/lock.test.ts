import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { lockDirectory } from './lock.mjs'

const base = mkdtempSync(join(tmpdir(), 'crossfade-lock-'))
const children: ChildProcess[] = []
afterAll(() => {
  for (const child of children) child.kill('SIGKILL')
  rmSync(base, { recursive: true, force: true })
})
let made = 0
const fresh = (): string => {
  const directory = join(base, String(made++), 'a'.repeat(120))
  mkdirSync(directory, { recursive: true })
  return directory
}

const LOCK = new URL('./lock.mjs', import.meta.url).href
const program = (directory: string): string =>
  `import(${JSON.stringify(LOCK)}).then((m) => m.lockDirectory(${JSON.stringify(directory)})).then(() => { console.log('has it'); setInterval(() => {}, 1000) }, (e) => console.log(e.code))`
/** Another process that takes a directory, by a command before it; gives what it says. */
const takenBy = async (directory: string, before: readonly string[] = []) => {
  const [command = process.execPath, ...rest] = [...before, process.execPath, '-e', program(directory)]
  const child = spawn(command, rest, { stdio: ['ignore', 'pipe', 'inherit'] })
  children.push(child)
  const said = await new Promise<string>((resolve) => child.stdout.once('data', (d) => resolve(String(d).trim())))
  return { child, said }
}
const mayUnshare = spawnSync('unshare', ['-n', 'true']).status === 0
const mayMount = spawnSync('unshare', ['-m', 'true']).status === 0

describe('a data directory', () => {
  it('is one process’s: another is refused, and has it when the first has ended', async () => {
    const directory = fresh()
    const unlock = await lockDirectory(directory)
    expect((await takenBy(directory)).said).toBe('EADDRINUSE')
    await unlock()
    expect(existsSync(join(directory, 'in-use'))).toBe(false)
    expect((await takenBy(directory)).said).toBe('has it')
    await expect(lockDirectory(directory)).rejects.toMatchObject({ code: 'EADDRINUSE' })
  })
  it('of a process that was killed is free at once', async () => {
    const directory = fresh()
    const { child } = await takenBy(directory)
    const ended = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGKILL')
    await ended
    expect(existsSync(join(directory, 'in-use'))).toBe(true)
    await (await lockDirectory(directory))()
    expect(existsSync(join(directory, 'in-use'))).toBe(false)
  })
  it.skipIf(!mayUnshare)('is the same one in another network', async () => {
    const directory = fresh()
    expect((await takenBy(directory, ['unshare', '-n'])).said).toBe('has it')
    await expect(lockDirectory(directory)).rejects.toMatchObject({ code: 'EADDRINUSE' })
  })
  it.skipIf(!mayMount)('is the same one by another way to it', async () => {
    const [directory, way] = [fresh(), fresh()]
    const unlock = await lockDirectory(directory)
    const mounted = ['unshare', '-m', 'sh', '-c', `mount --bind '${directory}' '${way}' && exec "$@"`, 'sh']
    expect((await takenBy(way, mounted)).said).toBe('EADDRINUSE')
    await unlock()
  })
})
