import { nameSet } from '../material/naming.ts'
import type { Overlay } from '../material/overlay.ts'
import { has } from '../pitch/pcset.ts'

/** A scale two triads can come from, and the degrees of it they leave out. */
export interface Parent {
  readonly scale: Overlay
  readonly omitted: readonly string[]
}

/** A mode made of a chord's open third is no scale to derive from, and the chromatic one holds everything. */
const NO_PARENTS = ['mixolydian without 3', 'chromatic']
const PARENT_FAMILIES = ['mode', 'symmetric', 'bebop', 'blues']

/** Every scale of the catalogue that holds both triads, those on the first triad's root first, then the smallest. */
export const parentsOf = (pair: Overlay): readonly Parent[] => {
  const { equal, within } = nameSet(pair)
  return [...equal, ...within]
    .filter((o) => PARENT_FAMILIES.includes(o.material?.family ?? '') && !NO_PARENTS.includes(o.material?.name ?? ''))
    .map((scale) => ({
      scale,
      omitted: (scale.material?.formula ?? [])
        .filter((_, i) => !has(pair.set, scale.notes[i]?.pc ?? 0))
        .map((d) => d.name),
    }))
}
