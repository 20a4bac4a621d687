import { spawnSync } from 'node:child_process'
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const DEBIAN = '/usr/lib/postgresql'
const bins = existsSync(DEBIAN) ? readdirSync(DEBIAN).map((version) => join(DEBIAN, version, 'bin')) : []
const BIN = bins.toSorted((a, b) => b.localeCompare(a, undefined, { numeric: true }))[0]

/** Whether Debian's `postgresql` is here. */
export const hasPostgres = BIN !== undefined

/** The server refuses to run as root; Debian's package makes a user for it. */
const asUser = process.getuid?.() === 0 ? ['runuser', '-u', 'postgres', '--'] : []
const run = (program: string, args: readonly string[]): string => {
  const [command = '', ...rest] = [...asUser, join(BIN ?? '', program), ...args]
  const done = spawnSync(command, rest, { encoding: 'utf8', cwd: '/' })
  if (done.status !== 0) throw new Error(`${program}: ${done.stderr}`)
  return done.stdout
}

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      server.close(() => resolve(port))
    })
  })

export interface PostgresServer {
  /** Of a new, empty database. */
  readonly newDatabase: () => string
  /** `immediate` is as if it were killed. */
  readonly stop: (how?: 'fast' | 'immediate') => void
  readonly start: () => void
  /** Stops it and removes what it held. */
  readonly end: () => void
}

/** A PostgreSQL server of one's own in a temporary directory, on a free port of this machine. It may be killed, but not lose power. */
export const startPostgres = async (): Promise<PostgresServer> => {
  const base = mkdtempSync(join(tmpdir(), 'crossfade-postgres-'))
  if (asUser.length > 0) spawnSync('chown', ['postgres', base])
  const data = join(base, 'data')
  run('initdb', ['-D', data, '-U', 'crossfade', '--auth=trust', '--no-sync', '-E', 'UTF8', '--locale=C.UTF-8'])
  const port = await freePort()
  const start = (): void => {
    const options = `-c listen_addresses=127.0.0.1 -c port=${port} -c unix_socket_directories=${base} -c fsync=off`
    run('pg_ctl', ['-D', data, '-w', '-l', join(base, 'log'), '-o', options, 'start'])
  }
  const stop = (how: 'fast' | 'immediate' = 'fast'): void => void run('pg_ctl', ['-D', data, '-w', '-m', how, 'stop'])
  start()
  let made = 0
  return {
    newDatabase: () => {
      const name = `crossfade_${made++}`
      run('createdb', ['-h', '127.0.0.1', '-p', String(port), '-U', 'crossfade', name])
      return `postgres://crossfade@127.0.0.1:${port}/${name}`
    },
    stop,
    start,
    end: () => {
      stop('immediate')
      rmSync(base, { recursive: true, force: true })
    },
  }
}
