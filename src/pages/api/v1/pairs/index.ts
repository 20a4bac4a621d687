import { QUERIES } from '../../../../server/compute-schemas.ts'
import { chordAt, endpoint, json, nextAt, notAllowed, readQuery } from '../../../../server/door.ts'
import { ANY_PAIR, pairsAnswer, qualitiesFrom } from '../../../../server/rankings.ts'

export const GET = endpoint(({ url }) => {
  const asked = readQuery(url, QUERIES.pairs)
  const { distance, exclusive } = asked
  const wish = { ...ANY_PAIR, qualities: qualitiesFrom(asked.qualities), distance, exclusive }
  return json(pairsAnswer(chordAt('chord', asked.chord), nextAt('next', asked.next), wish, asked, asked))
})
export const ALL = notAllowed
