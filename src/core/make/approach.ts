import { has } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'

/** What is put before a target: half steps from it, and `scale`, the next note of the home scale above. */
export const APPROACHES = {
  none: [],
  'half below': [-1],
  'half above': [1],
  'double below': [-2, -1],
  'double above': [2, 1],
  'scale above half below': ['scale', -1],
  'half below scale above': [-1, 'scale'],
  'enclosure of four': [2, 1, -1],
} as const satisfies Readonly<Record<string, readonly (number | 'scale')[]>>
export type ApproachName = keyof typeof APPROACHES
export const APPROACH_NAMES = Object.keys(APPROACHES) as readonly ApproachName[]

/** Which notes are approached. */
export const BEFORES = ['group', 'root', 'third', 'fifth', 'strong'] as const
export type Before = (typeof BEFORES)[number]

const above = (home: PcSet, target: number): number => {
  for (const up of [1, 2]) if (has(home, pitchClass(target + up))) return up
  return 2
}

/**
 * The pitches of an approach before a target. `home` is the scale under it, `own` the target's triad: a note of that is
 * no approach to it, where another is left.
 */
export const approachTo = (name: ApproachName, target: number, home: PcSet, own: PcSet): readonly number[] => {
  const all = APPROACHES[name].map((by) => target + (by === 'scale' ? above(home, target) : by))
  const others = all.filter((p) => !has(own, pitchClass(p)))
  return others.length > 0 ? others : all
}
