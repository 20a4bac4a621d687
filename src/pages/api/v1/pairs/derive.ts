import { ownSymbol, readOverlay } from '../../../../core/index.ts'
import { QUERIES } from '../../../../server/compute-schemas.ts'
import { chordAt, endpoint, json, nextAt, notAllowed, orProblem, readQuery } from '../../../../server/door.ts'
import { fieldProblem } from '../../../../server/problems.ts'
import { derivationAnswer, deriveOver } from '../../../../server/rankings.ts'

export const GET = endpoint(({ url }) => {
  const asked = readQuery(url, QUERIES.derive)
  const scale = orProblem('scale', readOverlay(asked.scale))
  if (scale.material === null || ![6, 7, 8].includes(scale.notes.length)) {
    const message = 'a scale of six, seven or eight notes is needed'
    throw fieldProblem('scale', message, asked.scale)
  }
  const chord = chordAt('chord', asked.chord === '' ? ownSymbol(scale) : asked.chord)
  const derived = deriveOver(scale, asked.omit || null, chord, nextAt('next', asked.next), asked)
  if (derived === null) {
    const degrees = scale.material.formula.map((d) => d.name).join(', ')
    const message = `${asked.omit} is not a degree of the scale: ${degrees}`
    throw fieldProblem('omit', message, asked.omit, degrees.split(', '))
  }
  return json(derivationAnswer(derived))
})
export const ALL = notAllowed
