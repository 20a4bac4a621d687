import { endpoint, json, notAllowed, readBody } from '../../../../../server/door.ts'
import { store } from '../../../../../server/store.ts'
import { PART } from '../../../../../server/take-schemas.ts'
import { addPart } from '../../../../../server/takes.ts'

export const POST = endpoint(async ({ params, request }) => {
  const { n, notes } = await readBody(request, PART)
  return json(await addPart(await store(), params.id ?? '', n, notes))
})
export const ALL = notAllowed
