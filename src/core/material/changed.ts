import { type Degree, degree } from '../pitch/degree.ts'
import { has, rotate, setOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { MATERIALS, type Material } from './material.ts'

const MOVED = { '-1': 'lowered', '1': 'raised' } as const

const moved = (d: Degree, by: -1 | 1): Degree | null => {
  const sign = d.alter + by
  if (Math.abs(sign) > 2) return null
  return degree(`${sign < 0 ? 'b'.repeat(-sign) : '#'.repeat(sign)}${d.step}`)
}

/** The first of the twelve transpositions: equal for sets that differ in their root only. */
const folded = (set: PcSet): number => Math.min(...Array.from({ length: 12 }, (_, n) => rotate(set, n)))

const BASES = [
  'major pentatonic',
  'minor pentatonic',
  'minor 6 pentatonic',
  'dominant pentatonic',
  'minor b5 pentatonic',
]

/**
 * Every pentatonic with one note moved by a semitone, named by what moved (`major pentatonic, 3 lowered`), as long as it
 * is no pentatonic with a name of its own. The root stays. Source: theory page, section 3.
 */
export const CHANGED_PENTATONICS: readonly Material[] = (() => {
  const known = new Set(MATERIALS.filter((m) => m.family === 'pentatonic').map((m) => folded(m.set)))
  const made: Material[] = []
  for (const base of MATERIALS.filter((m) => BASES.includes(m.name)))
    for (const [i, d] of base.formula.entries())
      for (const by of [-1, 1] as const) {
        const change = i === 0 ? null : moved(d, by)
        if (!change || has(base.set, (d.semitones + by + 12) % 12)) continue
        const formula = base.formula.map((f) => (f === d ? change : f))
        const set = setOf(formula.map((f) => f.semitones))
        if (known.has(folded(set))) continue
        known.add(folded(set))
        made.push({
          name: `${base.name}, ${d.name} ${MOVED[by]}`,
          family: 'pentatonic',
          formula,
          set,
          otherNames: [],
          passing: null,
          minorThird: has(set, 3) && !has(set, 4),
        })
      }
  return made
})()
