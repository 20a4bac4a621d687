import { endpoint, json, notAllowed, readBytes, readQuery } from '../../../../../server/door.ts'
import { getSound, MOST_PIECE, putSound, removeSound } from '../../../../../server/sounds.ts'
import { store } from '../../../../../server/store.ts'
import { SOUND_FROM } from '../../../../../server/take-schemas.ts'

export const GET = endpoint(async ({ params, request }) =>
  getSound(await store(), params.id ?? '', request.headers.get('range')),
)
export const PUT = endpoint(async ({ params, request, url }) => {
  const { from } = readQuery(url, SOUND_FROM)
  const bytes = await readBytes(request, MOST_PIECE)
  return json(await putSound(await store(), params.id ?? '', request.headers.get('content-type'), from, bytes))
})
export const DELETE = endpoint(async ({ params }) => json(await removeSound(await store(), params.id ?? '')))
export const ALL = notAllowed
