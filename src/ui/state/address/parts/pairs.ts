import { PAIR_QUALITIES } from '../../../../core/index.ts'
import { type Codec, choice, partOf, text, type ValueOf, whole } from '../codec.ts'

export const PAIR_PARTS = ['map', 'derive', 'play'] as const
export type PairPart = (typeof PAIR_PARTS)[number]

const SHARED = ['any', 'none', 'some'] as const
export type Shared = (typeof SHARED)[number]

/** Kinds of triad by their names, the major one as `maj`; null for the usual ones. */
const kinds: Codec<readonly string[] | null> = {
  first: null,
  read: (t) => {
    const asked = t.split(',')
    const known = PAIR_QUALITIES.map((q) => q.name).filter((n) => asked.includes(n || 'maj'))
    return known.length > 0 ? known : null
  },
  write: (names) => (names ?? []).map((n) => n || 'maj').join(','),
}

/**
 * Of Pairs: the map with its root distance, the derivation, or how to play the pair. Of Pairs and Symmetry: the scale
 * under examination, and the degree left out of it.
 */
export const PAIRS = partOf({
  part: choice(PAIR_PARTS, 'map'),
  distance: whole(2, 1, 6),
  kinds,
  shared: choice(SHARED, 'any'),
  scale: text,
  omit: text,
})
export type PairsPart = ValueOf<typeof PAIRS>
