// Programs of Debian's that tests use, installed when they are missing.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'

const CHROMIUM = '/usr/bin/chromium'
const POSTGRES = '/usr/lib/postgresql'

const install = (name) => {
  console.log(`Installing ${name}.`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const quietly = (args) => spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'inherit'] })
  quietly(['update', '-qq'])
  quietly(['install', '-y', '-qq', '--no-install-recommends', name])
}

/** Ends the process with a sentence where it cannot be had. */
export const ensureChromium = () => {
  if (!existsSync(CHROMIUM)) install('chromium')
  if (existsSync(CHROMIUM)) return
  console.error('Chromium is missing and could not be installed: apt-get install chromium (as root) brings it.')
  process.exit(1)
}

/** Where it cannot be had, what needs it is left out of the tests, and said so. */
export const ensurePostgres = () => {
  if (!existsSync(POSTGRES)) install('postgresql')
  if (!existsSync(POSTGRES))
    console.log('PostgreSQL is missing and could not be installed: data on a server is not tested here.')
}
