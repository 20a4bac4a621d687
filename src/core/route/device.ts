import type { Chord } from '../chord/chord.ts'
import { columnOf } from '../chord/degree-names.ts'
import type { Material } from '../material/material.ts'
import type { Overlay } from '../material/overlay.ts'
import { degree, isDegree } from '../pitch/degree.ts'
import { membersOf, rotate } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import type { PairShape } from '../reading/candidates.ts'

/** What a listener hears as one trick: a formula on a degree of the chord, whatever the key. */
export interface Device {
  readonly formula: string
  /** Semitones of its root above the chord's. */
  readonly up: number
}

/** The signs of bare triads, in words. */
const TRIADS: Readonly<Record<string, string>> = {
  '': 'major triad',
  m: 'minor triad',
  dim: 'diminished triad',
  '+': 'augmented triad',
  sus4: 'sus4 triad',
  sus2: 'sus2 triad',
}

export const formulaOf = (m: Material): string => TRIADS[m.name] ?? m.name

const joined = (first: string, second: string, apart: number): string => `${first} & ${second} ${apart} apart`
export const pairFormula = ({ first, second, apart }: PairShape): string =>
  joined(formulaOf(first), formulaOf(second), apart)

/** A material's formula, two triads' with their distance, or bare steps. */
const formulaIn = ({ material, groups, set, root }: Overlay): string => {
  if (material) return formulaOf(material)
  if (!groups) return `notes ${membersOf(rotate(set, -root.pc)).join('-')}`
  const [a, b] = groups
  return joined(formulaIn(a), formulaIn(b), pitchClass(b.root.pc - a.root.pc))
}

export const deviceOver = (overlay: Overlay, chord: Chord): Device => ({
  formula: formulaIn(overlay),
  up: pitchClass(overlay.root.pc - chord.root.pc),
})

/** Degree names by semitones where no chord gives them. */
export const NEUTRAL = columnOf('minor')

/** `minor pentatonic on b3`: the same for every kind of chord. */
export const deviceName = ({ formula, up }: Device): string => `${formula} on ${NEUTRAL[up]}`

/** Reads `deviceName`; any name of the degree will do. Null for anything else. */
export const readDevice = (text: string): Device | null => {
  const [, formula, on] = /^(.+) on (\S+)$/.exec(text.trim()) ?? []
  return formula && on && isDegree(on) ? { formula, up: pitchClass(degree(on).semitones) } : null
}
