import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const ROOT = fileURLToPath(new URL('..', import.meta.url))
const TEMPLATE = join(ROOT, 'test-results', 'empty-data')

/** An empty data directory: the database is made once and copied. */
export const emptyData = (): string => {
  if (!existsSync(join(TEMPLATE, 'pg')))
    spawnSync('node', ['scripts/initdb.mjs', TEMPLATE], { cwd: ROOT, stdio: 'inherit' })
  const data = mkdtempSync(join(tmpdir(), 'crossfade-e2e-'))
  cpSync(TEMPLATE, data, { recursive: true })
  return data
}

export interface Running {
  readonly address: string
  readonly process: ChildProcess
  /** Everything printed so far, both streams. */
  readonly printed: () => string
  /** Ends it with a signal and waits for the end; gives the exit code, or null after a kill. */
  readonly end: (signal?: NodeJS.Signals) => Promise<number | null>
  /** Bytes it holds, by what the system says; 0 where it says nothing. */
  readonly memory: () => number
}

const residentBytes = (pid: number | undefined): number => {
  const status = existsSync(`/proc/${pid}/status`) ? readFileSync(`/proc/${pid}/status`, 'utf8') : ''
  return Number(/^VmRSS:\s+(\d+) kB/m.exec(status)?.[1] ?? 0) * 1024
}

const exited = (child: ChildProcess): Promise<number | null> =>
  new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) resolve(child.exitCode)
    else child.once('exit', (code) => resolve(code))
  })

/** Starts the program as a player does, on a free port unless one is given, and waits for its address; rejects with what it said instead. */
export const startServer = async (
  data: string,
  port = '0',
  more: readonly string[] = [],
  env: Readonly<Record<string, string>> = {},
): Promise<Running> => {
  const child = spawn('node', ['scripts/start.mjs', ...more], {
    cwd: ROOT,
    env: { ...process.env, HOST: '127.0.0.1', PORT: port, CROSSFADE_DATA: data, DATABASE_URL: '', ...env },
  })
  let printed = ''
  const address = await new Promise<string>((resolve, reject) => {
    const read = (chunk: Buffer) => {
      printed += chunk
      const line = /^(http:\/\/\S+\/)$/m.exec(printed)
      if (line?.[1]) resolve(line[1])
    }
    child.stdout.on('data', read)
    child.stderr.on('data', read)
    child.once('exit', (code) => reject(new Error(`ended with ${code}: ${printed}`)))
  })
  const end = async (signal: NodeJS.Signals = 'SIGTERM') => {
    child.kill(signal)
    return exited(child)
  }
  return { address, process: child, printed: () => printed, end, memory: () => residentBytes(child.pid) }
}

export const removeData = (data: string): void => rmSync(data, { recursive: true, force: true })
