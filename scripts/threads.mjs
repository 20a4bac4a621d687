// For Vite: `import file from './thread.ts?thread'` is the address of that module bundled by itself, for a worker thread.
import { createHash } from 'node:crypto'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { build } from 'esbuild'
import { ROOT } from './prepare.mjs'

const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8'))
const MARK = '?thread'

const bundled = async (entry) => {
  const { outputFiles } = await build({
    entryPoints: [entry],
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    define: { __VERSION__: JSON.stringify(version) },
    write: false,
  })
  return outputFiles[0].contents
}

/** Written where the packages it asks for are found, also where nothing was built yet. */
const besideThePackages = (source) => {
  const folder = join(ROOT, 'node_modules/.crossfade')
  mkdirSync(folder, { recursive: true })
  const file = join(folder, `thread-${hashOf(source)}.mjs`)
  writeFileSync(file, source)
  return pathToFileURL(file).href
}

const hashOf = (source) => createHash('sha256').update(source).digest('hex').slice(0, 16)

/** @returns {import('vite').Plugin} */
export const threads = () => {
  let builds = false
  return {
    name: 'crossfade-threads',
    enforce: 'pre',
    configResolved(config) {
      builds = config.command === 'build'
    },
    async resolveId(source, importer) {
      if (!source.endsWith(MARK)) return null
      const found = await this.resolve(source.slice(0, -MARK.length), importer)
      return found && found.id + MARK
    },
    async load(id) {
      if (!id.endsWith(MARK)) return null
      const source = await bundled(id.slice(0, -MARK.length))
      if (!builds) return `export default ${JSON.stringify(besideThePackages(source))}`
      const file = this.emitFile({ type: 'asset', fileName: `thread-${hashOf(source)}.mjs`, source })
      return `export default import.meta.ROLLUP_FILE_URL_${file}`
    },
  }
}
