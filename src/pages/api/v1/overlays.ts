import { ANYTHING } from '../../../core/index.ts'
import { QUERIES } from '../../../server/compute-schemas.ts'
import { chordAt, endpoint, json, nextAt, notAllowed, readQuery } from '../../../server/door.ts'
import { degreesOn, overlaysAnswer } from '../../../server/rankings.ts'

export const GET = endpoint(({ url }) => {
  const asked = readQuery(url, QUERIES.overlays)
  const chord = chordAt('chord', asked.chord)
  const next = nextAt('next', asked.next)
  const wish = {
    ...ANYTHING,
    families: asked.families.length > 0 ? asked.families : ANYTHING.families,
    hold: degreesOn(chord, asked.hold),
    avoid: degreesOn(chord, asked.avoid),
    fadeMin: asked.fadeMin,
    fadeMax: asked.fadeMax,
    landingMin: asked.landingMin,
    sort: asked.sort,
  }
  return json(overlaysAnswer(chord, next, wish, asked, asked))
})
export const ALL = notAllowed
