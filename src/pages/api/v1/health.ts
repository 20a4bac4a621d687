import { damageSentence } from '../../../server/backup/damage.ts'
import { endpoint, json, notAllowed } from '../../../server/door.ts'
import { Problem } from '../../../server/problems.ts'
import { foundDamage, store } from '../../../server/store.ts'

export const GET = endpoint(async () => {
  const db = await store().catch((error: unknown) => {
    throw new Problem('not_ready', error instanceof Error ? error.message : 'The data cannot be opened.')
  })
  await db.query('select 1')
  const damage = foundDamage()
  if (damage.length > 0) throw new Problem('damaged', damageSentence(damage), [], { damage })
  return json({ status: 'ok', version: __VERSION__, schema: db.schemaVersion })
})
export const ALL = notAllowed
