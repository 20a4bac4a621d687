// Makes the database in <directory>/pg. Half-made ones stay in pg.new and are thrown away by the next run.
import { renameSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { PGlite } from '@electric-sql/pglite'
import { lockDirectory, takenSentence } from '../src/server/lock.mjs'

const [directory] = process.argv.slice(2)
const unlock = await lockDirectory(directory).catch(() => {
  console.error(takenSentence(directory))
  process.exit(1)
})
const fresh = join(directory, 'pg.new')
rmSync(fresh, { recursive: true, force: true })
const pg = await PGlite.create({ dataDir: fresh })
await pg.query('select 1')
await pg.close()
renameSync(fresh, join(directory, 'pg'))
await unlock()
process.exit(0)
