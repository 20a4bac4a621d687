/** What a row of some kind holds, field by field. */
export type Fields = Readonly<Record<string, unknown>>

/** A change to some fields of a row. Changes that share a step are undone together; they are sent in their order. */
export interface Edit {
  readonly patch: Fields
  readonly step: string
}

const isThing = (v: unknown): v is Readonly<Record<string, unknown>> => typeof v === 'object' && v !== null

/** Whether two values say the same, in whatever order a database gives their fields; what is not set counts as none. */
export const same = (a: unknown, b: unknown): boolean => {
  if (a === b) return true
  if (!isThing(a) || !isThing(b) || Array.isArray(a) !== Array.isArray(b)) return false
  const keys = new Set([...Object.keys(a), ...Object.keys(b)])
  return [...keys].every((key) => same(a[key], b[key]))
}

/** The changes laid over a row, one after another. */
export const laidOver = <R extends Fields>(row: R, patches: readonly (Fields | null)[]): R =>
  Object.assign({}, row, ...patches)

/** Only what differs from the row. */
export const differing = (patch: Fields, row: Fields): Fields =>
  Object.fromEntries(Object.entries(patch).filter(([field, value]) => !same(value, row[field])))

export const isEmpty = (patch: Fields): boolean => Object.keys(patch).length === 0

/** A change at the end of a queue: it joins the last one where both are of one step. */
export const queued = (queue: readonly Edit[], edit: Edit): readonly Edit[] => {
  const last = queue.at(-1)
  if (last?.step !== edit.step) return [...queue, edit]
  return [...queue.slice(0, -1), { ...edit, patch: { ...last.patch, ...edit.patch } }]
}

/** How one field of three is brought together, where that can be done: what was read, what is here, what another kept. */
export type Merge = (base: unknown, mine: unknown, theirs: unknown) => unknown

interface Keyed {
  readonly [field: string]: unknown
}

/** Lists of things that each have a key of their own: what either side said of a key stands, unless both said of the same. */
export const mergeByKey =
  (keyOf: (one: Keyed) => string): Merge =>
  (base, mine, theirs) => {
    const byKey = (list: unknown) => new Map(((list ?? []) as readonly Keyed[]).map((one) => [keyOf(one), one]))
    const [was, here, there] = [byKey(base), byKey(mine), byKey(theirs)]
    const merged = new Map(there)
    for (const key of new Set([...was.keys(), ...here.keys()])) {
      if (same(was.get(key), here.get(key))) continue
      if (!same(was.get(key), there.get(key)) && !same(here.get(key), there.get(key))) return undefined
      const one = here.get(key)
      if (one) merged.set(key, one)
      else merged.delete(key)
    }
    return [...merged.values()]
  }

/**
 * What was changed here, over a row that another changed in the meantime: the patch that is still to be sent, or null
 * where both changed one thing differently.
 */
export const rebased = (
  base: Fields,
  mine: Fields,
  theirs: Fields,
  merges: Readonly<Record<string, Merge>>,
): Fields | null => {
  const patch: Record<string, unknown> = {}
  for (const [field, value] of Object.entries(mine)) {
    if (same(value, theirs[field])) continue
    const merged = same(base[field], theirs[field]) ? value : merges[field]?.(base[field], value, theirs[field])
    if (merged === undefined) return null
    patch[field] = merged
  }
  return patch
}
