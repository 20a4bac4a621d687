import type { Chord } from '../chord/chord.ts'
import { heardOver } from '../chord/chord.ts'
import type { Note } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeOf } from './home.ts'
import { judge, type Place } from './role.ts'
import type { School } from './school.ts'
import { EXIT_STRENGTHS } from './weights.ts'

export type ExitHow = 'held' | 'half step down' | 'half step up' | 'whole step down' | 'whole step up'

/** One way from a note into the next chord; `strength` 0..1, unrounded. */
export interface Exit {
  readonly to: Note
  readonly degree: string
  readonly how: ExitHow
  readonly guide: boolean
  readonly strength: number
}

/** A tone of the next chord that a line can land on. */
export interface Target {
  readonly note: Note
  readonly degree: string
  readonly guide: boolean
  readonly kind: keyof typeof EXIT_STRENGTHS
}

/** Targets by pitch class: the next chord's own tones, and the extensions its home scale holds (read with no further next). */
export const targetsOf = (next: Chord, school: School): readonly (Target | null)[] => {
  const place: Place = { chord: next, next: null, job: null, school, home: homeOf(next, null, null, school) }
  return Array.from({ length: 12 }, (_, pc) => {
    const { role, up, inHome } = judge(place, pc)
    if (role !== 'chord' && !(role === 'extension' && inHome)) return null
    const guide = role === 'chord' && has(next.guideSet, up)
    return {
      note: heardOver(next, pc),
      degree: next.names[up] ?? '1',
      guide,
      kind: role === 'extension' ? 'extension' : guide ? 'guide' : 'chord',
    }
  })
}

const MOVES: readonly (readonly [number, ExitHow, 'held' | 'half' | 'whole'])[] = [
  [0, 'held', 'held'],
  [-1, 'half step down', 'half'],
  [1, 'half step up', 'half'],
  [-2, 'whole step down', 'whole'],
  [2, 'whole step up', 'whole'],
]

/** Every exit of a pitch class, strongest first, then guide tones, then downward. */
export const exitsOf = (pc: number, targets: readonly (Target | null)[]): readonly Exit[] => {
  const exits: Exit[] = []
  for (const [by, how, size] of MOVES) {
    const target = targets[pitchClass(pc + by)]
    if (!target) continue
    const strength = EXIT_STRENGTHS[target.kind][size]
    if (strength > 0) exits.push({ to: target.note, degree: target.degree, how, guide: target.guide, strength })
  }
  return exits.sort((a, b) => b.strength - a.strength || Number(b.guide) - Number(a.guide))
}
