import { dominantsBehind } from '../../../core/index.ts'
import { dominantsAnswer } from '../../../server/answers.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { endpoint, json, notAllowed, readQuery } from '../../../server/door.ts'
import { fieldProblem } from '../../../server/problems.ts'
import { chordAt } from '../../../server/texts.ts'

export const GET = endpoint(({ url }) => {
  const { of } = readQuery(url, QUERIES.dominants)
  const behind = dominantsBehind(chordAt('of', of))
  if (behind === null) {
    const message = 'only a diminished seventh stands for dominants'
    throw fieldProblem('of', message, of, ['a diminished seventh, such as Ebdim7'])
  }
  return json(dominantsAnswer(behind))
})
export const ALL = notAllowed
