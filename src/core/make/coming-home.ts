import type { Role } from '../reading/role.ts'

interface Told {
  readonly pitch: number
  readonly role: Role | null
  readonly blue: boolean
}

export const isOut = (n: Told | undefined): boolean => n !== undefined && n.role === 'outside' && !n.blue

/**
 * How well each leaving of home comes back, 0..100: by a half step 100, held or by a whole step 40, else 0; their mean.
 * Null where nothing went outside.
 */
export const comingHome = (notes: readonly Told[]): number | null => {
  const left = notes.flatMap((n, i): readonly number[] => {
    const next = notes[i + 1]
    if (!isOut(n) || isOut(next)) return []
    const by = next ? Math.abs(next.pitch - n.pitch) : 12
    return [by === 1 ? 100 : by === 0 || by === 2 ? 40 : 0]
  })
  return left.length === 0 ? null : Math.round(left.reduce((a, b) => a + b, 0) / left.length)
}
