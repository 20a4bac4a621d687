// npm run bench: how fast, against a general theory library. Nothing here is asserted in tests.
import { join } from 'node:path'
import { ensureBuilt, ensureInstalled, ROOT, run } from './prepare.mjs'

await ensureInstalled()
const { build } = await import('esbuild')
// Bundled as the page and the server are, so that the figures are those of what is shipped.
const bench = async (name) => {
  const outfile = join(ROOT, `dist-bench/${name}.mjs`)
  await build({
    entryPoints: [join(ROOT, `tests/bench/${name}.ts`)],
    bundle: true,
    platform: 'node',
    format: 'esm',
    outfile,
    logLevel: 'warning',
    // The browser's driver is no part of what is measured.
    external: ['@playwright/test'],
  })
  run('node', [outfile])
}
const asked = process.argv.slice(2)
for (const name of [
  'bench',
  'opening',
  'making',
  'practice',
  'listening',
  'microphone',
  'recording',
  'load',
  'players',
  'hour',
  'keys',
  'backup',
  'files',
].filter((n) => asked.length === 0 || asked.includes(n))) {
  if (['opening', 'microphone', 'recording', 'load', 'players', 'hour', 'keys', 'backup'].includes(name))
    await ensureBuilt()
  await bench(name)
}
