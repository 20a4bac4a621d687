import { choice, partOf, text, type ValueOf, whole } from '../codec.ts'

export const PAIR_PARTS = ['map', 'derive', 'play'] as const
export type PairPart = (typeof PAIR_PARTS)[number]

/**
 * Of Pairs: the map with its root distance, the derivation, or how to play the pair. Of Pairs and Symmetry: the scale
 * under examination, and the degree left out of it.
 */
export const PAIRS = partOf({
  part: choice(PAIR_PARTS, 'map'),
  distance: whole(1, 1, 6),
  scale: text,
  omit: text,
})
export type PairsPart = ValueOf<typeof PAIRS>
