import { familyOf, type ItemOf, PRACTICE_FAMILIES, type PracticeFamily, plainKey, TWELVE_KEYS } from './items.ts'
import { isClean, type LogEntry } from './log.ts'

/** One family in one key: when it was last played, the fastest clean tempo, the share of clean rounds; null before any. */
export interface Covered {
  readonly family: PracticeFamily
  readonly key: string
  readonly last: number | null
  readonly tempo: number | null
  readonly clean: number | null
  readonly rounds: number
}

interface Sum {
  last: number
  tempo: number | null
  clean: number
  rounds: number
}

/** Every family in every key, holes among them, from the graded rounds of the log. */
export const coverageOf = (
  items: readonly { readonly id: string; readonly of: ItemOf }[],
  log: readonly LogEntry[],
): readonly Covered[] => {
  const families = new Map(items.map((i) => [i.id, familyOf(i.of)]))
  const plain = new Map<string, string>()
  const sums = new Map<string, Sum>()
  for (const { itemId, key, grade, at, tempo } of log) {
    const family = itemId === null ? undefined : families.get(itemId)
    if (!family || key === null || grade === null) continue
    const known = plain.get(key) ?? plainKey(key)
    plain.set(key, known)
    const cell = `${family} ${known}`
    const sum = sums.get(cell) ?? { last: at, tempo: null, clean: 0, rounds: 0 }
    sum.last = Math.max(sum.last, at)
    sum.rounds++
    if (isClean(grade)) {
      sum.clean++
      if (tempo !== null) sum.tempo = Math.max(sum.tempo ?? 0, tempo)
    }
    sums.set(cell, sum)
  }
  return PRACTICE_FAMILIES.flatMap((family) =>
    TWELVE_KEYS.map((key): Covered => {
      const sum = sums.get(`${family} ${key}`)
      return {
        ...{ family, key, last: sum?.last ?? null, tempo: sum?.tempo ?? null, rounds: sum?.rounds ?? 0 },
        clean: sum ? sum.clean / sum.rounds : null,
      }
    }),
  )
}
