// The same by hand: plain loops over sets as integers, with nothing named, spelled or explained. What ours costs is measured against them.
import { MATERIALS, type Material } from '../../src/core/material/material.ts'
import { rotate } from '../../src/core/pitch/pcset.ts'
import { lensOf } from '../../src/core/reading/lens.ts'
import type { Place } from '../../src/core/reading/role.ts'
import type { Weights } from '../../src/core/reading/weights.ts'

/** Twelve notes over a chord, as tables: how far out, the best exit in hundredths times its weight, and the weight. */
interface Notes {
  readonly fade: readonly number[]
  readonly exit: readonly number[]
  readonly weight: readonly number[]
  readonly rubs: number
  readonly suspensions: number
}
export const notesOver = (place: Place, weights: Weights): Notes => {
  const lens = lensOf(place, weights)
  const of = (field: 'fade' | 'exit' | 'weight'): number[] =>
    Array.from({ length: 12 }, (_, pc) => (pc < 6 ? lens.low[1 << pc] : lens.high[1 << (pc - 6)])?.[field] ?? 0)
  return {
    ...{ fade: of('fade'), exit: of('exit'), weight: of('weight') },
    ...{ rubs: lens.rubs, suspensions: lens.suspensions },
  }
}

const placed = (materials: readonly Material[]) =>
  materials.flatMap((m) => Array.from({ length: 12 }, (_, root) => ({ m, root, set: rotate(m.set, root) })))

/** Every material but the blues scales, which bring notes of their own, on twelve roots. */
const ALL = placed(MATERIALS.filter((m) => m.family !== 'blues'))
const SETS = Int32Array.from(ALL, (p) => p.set)
const PASSING = Int32Array.from(ALL, ({ m, root }) => (m.passing === null ? 12 : (m.passing + root) % 12))

const ones = (set: number): number => {
  let count = 0
  for (let rest = set; rest; rest &= rest - 1) count++
  return count
}

/** The fades of all of them, lowest first, then fewest rubs, fewest suspensions, highest landing: numbers alone. */
export const rankByHand = ({ fade, exit, weight, rubs, suspensions }: Notes, mean: number): readonly number[] => {
  const keys = new Float64Array(SETS.length)
  for (let i = 0; i < SETS.length; i++) {
    const set = SETS[i] as number
    const passing = PASSING[i] as number
    let [sum, worst, count, exits, weights] = [0, 0, 0, 0, 0]
    for (let pc = 0; pc < 12; pc++) {
      if (((set >> pc) & 1) === 0) continue
      const far = fade[pc] as number
      sum += far
      count++
      if (far > worst && pc !== passing) worst = far
      exits += exit[pc] as number
      weights += weight[pc] as number
    }
    const out = Math.round((mean * sum + (100 - mean) * worst * count) / (100 * count))
    const lands = Math.round(exits / weights)
    keys[i] = ((out * 16 + ones(set & rubs)) * 16 + ones(set & suspensions)) * 128 + (100 - lands)
  }
  return Array.from(keys.sort(), (key) => Math.floor(key / (16 * 16 * 128)))
}

/** One of each set a symmetric material has. */
const DISTINCT = Int32Array.from(
  MATERIALS.flatMap((m) => [...new Set(Array.from({ length: 12 }, (_, n) => rotate(m.set, n)))]),
)

/** How many of the catalogue's sets hold this one, and how many it holds. */
export const nameByHand = (set: number): readonly [within: number, holds: number] => {
  let [within, holds] = [0, 0]
  for (let i = 0; i < DISTINCT.length; i++) {
    const other = DISTINCT[i] as number
    if (other === set) continue
    const both = other & set
    if (both === set) within++
    else if (both === other) holds++
  }
  return [within, holds]
}
