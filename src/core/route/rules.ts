import type { Overlay } from '../material/overlay.ts'
import { EMPTY_SET, type PcSet } from '../pitch/units.ts'
import type { FamilyName, PentatonicNaming } from '../reading/candidates.ts'

/** How each overlay follows from the one before. `by` is null for whichever constant fits best. */
export type Motion =
  | { readonly kind: 'free' | 'fewest' | 'one-note' | 'contrary' }
  | { readonly kind: 'shape'; readonly by: number | null }

export const MOTION_SCOPES = ['cadence', 'throughout'] as const
export type MotionScope = (typeof MOTION_SCOPES)[number]

const WORDS = ['free', 'fewest', 'one-note', 'contrary'] as const

/** `+1`, `-3`, `constant`, `one-note`, `contrary`, `fewest`, `free`; null for anything else. A shape moves by 1..11. */
export const readMotion = (text: string): Motion | null => {
  const word = WORDS.find((w) => w === text)
  if (word) return { kind: word }
  if (text === 'constant') return { kind: 'shape', by: null }
  const by = /^[+-]?(?:[1-9]|1[01])$/.test(text) ? Number(text) : null
  return by === null ? null : { kind: 'shape', by }
}

export const motionName = (motion: Motion): string => {
  if (motion.kind !== 'shape') return motion.kind
  return motion.by === null ? 'constant' : `${motion.by > 0 ? '+' : ''}${motion.by}`
}

/** A step is named by its place in the route, from 0. */
export interface Lock {
  readonly step: number
  readonly overlay: Overlay
}

/** What must not be used: an overlay or a device, at one step or (null) anywhere. */
export interface Ban {
  readonly step: number | null
  readonly overlay: Overlay | null
  readonly device: string | null
}

/** Between which fades a step must stay: how a recipe says "out here". */
export interface FadeWindow {
  readonly step: number
  readonly least: number
  readonly most: number
}

/** What a route must keep to. */
export interface RouteRules {
  readonly families: readonly FamilyName[]
  readonly naming: PentatonicNaming
  /** Semitones above each chord's root that must, and must not, be there. */
  readonly hold: PcSet
  readonly avoid: PcSet
  readonly fadeMin: number
  readonly fadeMax: number
  readonly landingMin: number
  /** A note that rubs is welcome from this fade on: below it, it sounds like a mistake. 0 for anywhere. */
  readonly rubsFrom: number
  /** The wished fade of each step, null where any will do. */
  readonly arc: readonly (number | null)[]
  /** Whether no arc was given: the usual wishes hold, rubs on the way home have a price, and so has one overlay kept on. */
  readonly usual: boolean
  readonly motion: Motion
  readonly scope: MotionScope
  /** Whether the last step joins the first. */
  readonly loop: boolean
  readonly locks: readonly Lock[]
  readonly bans: readonly Ban[]
  readonly windows: readonly FadeWindow[]
}

export const ROUTE_FAMILIES: readonly FamilyName[] = ['triad', 'seventh', 'pentatonic', 'mode', 'symmetric']

/** No wish and no rule: what is left out of a request. */
export const NO_RULES: RouteRules = {
  families: ROUTE_FAMILIES,
  naming: 'as minor',
  hold: EMPTY_SET,
  avoid: EMPTY_SET,
  fadeMin: 0,
  fadeMax: 100,
  landingMin: 0,
  rubsFrom: 0,
  arc: [],
  usual: false,
  motion: { kind: 'free' },
  scope: 'cadence',
  loop: false,
  locks: [],
  bans: [],
  windows: [],
}
