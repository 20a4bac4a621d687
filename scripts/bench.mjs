// npm run bench: how fast, against a general theory library. Nothing here is asserted in tests.
import { join } from 'node:path'
import { ensureInstalled, ROOT, run } from './prepare.mjs'

await ensureInstalled()
const { build } = await import('esbuild')
const outfile = join(ROOT, 'dist-bench/bench.mjs')
// Bundled as the page and the server are, so that the figures are those of what is shipped.
await build({
  entryPoints: [join(ROOT, 'tests/bench/bench.ts')],
  bundle: true,
  platform: 'node',
  format: 'esm',
  outfile,
  logLevel: 'warning',
})
run('node', [outfile])
