import { type Degree, degree, degrees } from '../pitch/degree.ts'
import { has, setOf } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { FAMILIES, type MaterialFamily, type MaterialName, PASSING } from './catalogue.ts'

/** A named formula; `set` is relative to its root. */
export interface Material {
  readonly name: string
  readonly family: MaterialFamily
  readonly formula: readonly Degree[]
  readonly set: PcSet
  readonly otherNames: readonly string[]
  /** Semitones of the added passing note of a bebop scale, or null. */
  readonly passing: number | null
  readonly minorThird: boolean
}

/** A material from its formula; everything else about it follows. */
export const materialOf = (
  family: MaterialFamily,
  name: string,
  formula: readonly Degree[],
  otherNames: readonly string[],
): Material => {
  const set = setOf(formula.map((d) => d.semitones))
  const passing = PASSING[name]
  return Object.freeze({
    name,
    family,
    formula,
    set,
    otherNames,
    passing: passing === undefined ? null : pitchClass(degree(passing).semitones),
    minorThird: has(set, 3) && !has(set, 4),
  })
}

/** Every material of the catalogue, in the order of its tables: triads, sevenths, pentatonics, modes, … */
export const MATERIALS: readonly Material[] = (Object.keys(FAMILIES) as MaterialFamily[]).flatMap((family) =>
  FAMILIES[family].map(([name, formula, otherNames]) => materialOf(family, name, degrees(formula), otherNames)),
)

const byName = new Map(MATERIALS.map((m) => [m.name, m]))

/** A material that our own tables name. */
export const materialNamed = (name: MaterialName): Material => {
  const found = byName.get(name)
  if (!found) throw new Error(`no such material in the catalogue: ${name}`)
  return found
}

const AT_THE_ROOT = new Set(['triad', 'seventh', 'ninth'])
const WORDED = / triad$|^dim7 |^dim\(/

/** `E minor pentatonic`, `Em`, `E+`, `Em7b5 arpeggio`, `E dim7 arpeggio`, `E lydian triad`. */
export const nameOn = (rootName: string, m: Material): string => {
  const attached = AT_THE_ROOT.has(m.family) && !WORDED.test(m.name)
  return attached ? rootName + m.name : `${rootName} ${m.name}`
}
