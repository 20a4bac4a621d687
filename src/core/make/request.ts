import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import type { ApproachName, Before } from './approach.ts'
import type { Figure } from './figures.ts'
import type { MakePlan } from './ground.ts'
import type { Rhythm } from './rhythm.ts'

/** How groups follow one another. */
export const LINE_PATHS = ['up', 'down', 'wave', 'nearest', 'free'] as const
export type LinePath = (typeof LINE_PATHS)[number]

/** Which triad of a pair comes when, and how its inversions follow. */
export const TRIAD_ORDERS = ['alternate', 'two by two', 'first', 'second'] as const
export type TriadOrder = (typeof TRIAD_ORDERS)[number]
export const INVERSION_PATHS = ['kept', 'climb', 'fall'] as const
export type InversionPath = (typeof INVERSION_PATHS)[number]

export const LANDING_WAYS = [
  ...(['half step below', 'half step above', 'whole step below', 'whole step above'] as const),
  ...(['enclosure', 'held', 'any'] as const),
] as const
export type LandingWay = (typeof LANDING_WAYS)[number]

/** Where a line ends: on a degree of the chord that sounds at a moment, and how it gets there. */
export interface LandingWish {
  readonly at: number
  /** Semitones above that chord's root. */
  readonly up: number
  readonly how: LandingWay
}

/** What a line is to be made of. `range` in MIDI numbers, both ends included. */
export interface MakeRequest {
  readonly plan: MakePlan
  readonly from: number
  readonly to: number
  readonly figure: Figure
  readonly approach: ApproachName
  readonly before: Before
  /** Whether an approach takes its time from the note before it, so that its target stays, or a place of its own. */
  readonly approachTakes: 'time before' | 'its own place'
  readonly rhythm: Rhythm
  readonly path: LinePath
  /** Groups before a wave turns. */
  readonly wave: number
  readonly order: TriadOrder
  readonly inversion: InversionPath
  readonly landing: LandingWish | null
  readonly range: readonly [number, number]
  readonly limit: number
  readonly school: School
  readonly weights: Weights
}
