import { type Degree, degree } from '../pitch/degree.ts'
import { has } from '../pitch/pcset.ts'
import { MATERIALS, type Material, materialOf } from './material.ts'

const MOVED = { '-1': 'lowered', '1': 'raised' } as const

const moved = (d: Degree, by: -1 | 1): Degree | null => {
  const sign = d.alter + by
  if (Math.abs(sign) > 2) return null
  return degree(`${sign < 0 ? 'b'.repeat(-sign) : '#'.repeat(sign)}${d.step}`)
}

const BASES = [
  'major pentatonic',
  'minor pentatonic',
  'minor 6 pentatonic',
  'dominant pentatonic',
  'minor b5 pentatonic',
]

const changesOf = (base: Material): readonly Material[] =>
  base.formula.slice(1).flatMap((d) =>
    ([-1, 1] as const).flatMap((by) => {
      const change = moved(d, by)
      if (!change || has(base.set, (d.semitones + by + 12) % 12)) return []
      const formula = base.formula.map((f) => (f === d ? change : f))
      return materialOf(base.family, `${base.name}, ${d.name} ${MOVED[by]}`, formula, [])
    }),
  )

/**
 * Every pentatonic with one note moved by a semitone, named by what moved (`major pentatonic, 3 lowered`), also where
 * that gives a pentatonic with a name of its own. The root stays. Source: theory page, section 3.
 */
export const CHANGED_PENTATONICS: readonly Material[] = MATERIALS.filter((m) => BASES.includes(m.name)).flatMap(
  changesOf,
)
