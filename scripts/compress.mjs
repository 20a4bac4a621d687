// What the browser fetches, compressed once after the build, so that no answer waits for it.
import { readdir, readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { WORTH_COMPRESSING } from '../src/server/headers.mjs'

const COMPRESSIBLE = /\.(js|css|svg|json|txt|html)$/
const WAYS = [
  ['br', (bytes) => promisify(brotliCompress)(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } })],
  ['gz', (bytes) => promisify(gzip)(bytes, { level: 9 })],
]

/** Puts `x.br` and `x.gz` beside each file `x` of a folder that shrinks by it. */
export const compressFiles = async (folder) => {
  const files = await readdir(folder, { recursive: true })
  await Promise.all(
    files
      .filter((name) => COMPRESSIBLE.test(name))
      .map(async (name) => {
        const bytes = await readFile(join(folder, name))
        if (bytes.length < WORTH_COMPRESSING) return
        for (const [ending, way] of WAYS) {
          const packed = await way(bytes)
          if (packed.length < bytes.length) await writeFile(join(folder, `${name}.${ending}`), packed)
        }
      }),
  )
}
