// Debian's Chromium, installed when it is missing.
import { spawnSync } from 'node:child_process'
import { existsSync } from 'node:fs'

const CHROMIUM = '/usr/bin/chromium'

/** Ends the process with a sentence where it cannot be had. */
export const ensureChromium = () => {
  if (existsSync(CHROMIUM)) return
  console.log('Installing Chromium.')
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const quietly = (args) => spawnSync('apt-get', args, { env, stdio: ['ignore', 'ignore', 'inherit'] })
  quietly(['update', '-qq'])
  quietly(['install', '-y', '-qq', '--no-install-recommends', 'chromium'])
  if (existsSync(CHROMIUM)) return
  console.error('Chromium is missing and could not be installed: apt-get install chromium (as root) brings it.')
  process.exit(1)
}
