import { MATERIALS, type Material } from '../material/material.ts'
import { pairsOver } from '../reading/candidates.ts'
import { ANYTHING, type Ranked, rankCandidates } from '../reading/rank.ts'
import type { Place } from '../reading/role.ts'
import type { Weights } from '../reading/weights.ts'

/** The qualities of the map's rows and columns. */
export const PAIR_QUALITIES: readonly Material[] = MATERIALS.filter((m) => m.family === 'triad')
export const PAIR_DISTANCES = [1, 2, 3, 4, 5, 6] as const

/** One cell: a triad, and another so many semitones above it, on whichever root lies furthest in. */
export interface MapCell {
  readonly first: Material
  readonly second: Material
  readonly all: readonly Ranked[]
}

/**
 * The pair map at one root distance: `rows[i][j]` is quality i with quality j that many semitones above it, its pairs on
 * the twelve roots ranked over the chord. At the tritone both ways round are the same.
 */
export const pairMap = (place: Place, distance: number, weights: Weights): readonly (readonly MapCell[])[] => {
  const apart = [distance, 12 - distance]
  const cells = new Map<string, Ranked[]>()
  const put = (first: Material, second: Material, r: Ranked): void => {
    const key = `${first.name}&${second.name}`
    cells.set(key, [...(cells.get(key) ?? []), r])
  }
  for (const r of rankCandidates(
    pairsOver(place, (s) => apart.includes(s.apart)),
    place,
    { ...ANYTHING, sort: 'fade' },
    weights,
  )) {
    const { shape } = r.candidate
    if (!shape) continue
    if (shape.apart === distance) put(shape.first, shape.second, r)
    if (shape.apart === 12 - distance && (distance !== 6 || shape.first !== shape.second))
      put(shape.second, shape.first, r)
  }
  return PAIR_QUALITIES.map((first) =>
    PAIR_QUALITIES.map((second) => ({ first, second, all: cells.get(`${first.name}&${second.name}`) ?? [] })),
  )
}
