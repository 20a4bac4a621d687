import { type PcSet, type PitchClass, pitchClass } from './units.ts'

export const setOf = (pcs: readonly number[]): PcSet => {
  let mask = 0
  for (const pc of pcs) mask |= 1 << pitchClass(pc)
  return mask as PcSet
}

export const has = (set: PcSet, pc: number): boolean => ((set >> pc) & 1) === 1
export const union = (a: PcSet, b: PcSet): PcSet => (a | b) as PcSet
export const shared = (a: PcSet, b: PcSet): PcSet => (a & b) as PcSet
/** Whether every note of `inner` is in `outer`. */
export const holds = (outer: PcSet, inner: PcSet): boolean => (outer & inner) === inner

/** The set moved up by `n` semitones (any whole number). */
export const rotate = (set: PcSet, n: number): PcSet => {
  const by = pitchClass(n)
  return (((set << by) | (set >> (12 - by))) & 0xfff) as PcSet
}

const SIZES = Uint8Array.from({ length: 4096 }, (_, set) => {
  let count = 0
  for (let rest = set; rest; rest &= rest - 1) count++
  return count
})
export const sizeOf = (set: PcSet): number => SIZES[set] as number

export const membersOf = (set: PcSet): PitchClass[] => {
  const members: PitchClass[] = []
  for (let pc = 0; pc < 12; pc++) if (has(set, pc)) members.push(pc as PitchClass)
  return members
}

/** The smallest transposition, 1..12 semitones, that gives the set back; 12 means that it does not repeat. */
export const periodOf = (set: PcSet): number => {
  for (const n of [1, 2, 3, 4, 6]) if (rotate(set, n) === set) return n
  return 12
}
