/** Things by what they have in common, in their order. */
export const groupedBy = <T, K>(all: readonly T[], keyOf: (one: T) => K): ReadonlyMap<K, readonly T[]> => {
  const groups = new Map<K, T[]>()
  for (const one of all) {
    const own = groups.get(keyOf(one))
    if (own) own.push(one)
    else groups.set(keyOf(one), [one])
  }
  return groups
}

/** The place of the last that fits; -1 where none does. */
export const lastWhere = <T>(all: readonly T[], fits: (one: T) => boolean): number => {
  let i = all.length - 1
  while (i >= 0 && !fits(all[i] as T)) i--
  return i
}
