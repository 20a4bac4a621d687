import { readBody } from '../door.ts'
import { TELL } from '../sql.ts'
import { store } from '../store.ts'
import { PLAYING_BODY } from './schemas.ts'

/** Tells every other page where this one plays. */
export const playingAnswer = async (request: Request): Promise<{ readonly told: boolean }> => {
  const place = await readBody(request, PLAYING_BODY)
  await (await store()).query(TELL, [JSON.stringify({ news: 'playing', ...place })])
  return { told: true }
}
