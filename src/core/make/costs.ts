import { type GroupPlace, type Moment, roleOf, type Standing } from './groups.ts'
import type { MakeRequest } from './request.ts'

/** What makes a line dear, in whole points; `again` is a group played twice on one spot. Source: make page, path and joins. */
export const COSTS = {
  held: 2,
  wholeStep: 3,
  furtherSemitone: 2,
  leap: 6,
  turn: 2,
  again: 6,
  strong: 8,
  noWayHome: 12,
} as const
/** A leap is more than a fifth. */
const FIFTH = 7
/** The middle of the range is two thirds of it. */
const EDGE = 1 / 6

export const TERM_NAMES = ['joins', 'leaps', 'turns', 'again', 'range', 'strong', 'wayHome'] as const
export type Terms = Readonly<Record<(typeof TERM_NAMES)[number], number>>
export const NO_TERMS: Terms = { joins: 0, leaps: 0, turns: 0, again: 0, range: 0, strong: 0, wayHome: 0 }
export const addTerms = (a: Terms, b: Partial<Terms>): Terms =>
  Object.fromEntries(TERM_NAMES.map((n) => [n, a[n] + (b[n] ?? 0)])) as Record<keyof Terms, number>

const sumOf = (terms: Partial<Terms>): number => TERM_NAMES.reduce((sum, n) => sum + (terms[n] ?? 0), 0)

/** From the last note of a group to the first that sounds of the next. */
export const joinCost = (from: number, to: number): number => {
  const by = Math.abs(to - from)
  if (by === 0) return COSTS.held
  return by === 1 ? 0 : COSTS.wholeStep + (by - 2) * COSTS.furtherSemitone
}

const isOutside = (pitch: number, moment: Moment): boolean => roleOf(pitch, moment) === 'outside'

/** A note outside that goes on to one that is not, and not by a step. */
const wayHomeCost = (pitch: number, at: Moment, next: number, then: Moment): number =>
  isOutside(pitch, at) && !isOutside(next, then) && Math.abs(next - pitch) > 2 ? COSTS.noWayHome : 0

const outOfMiddle = (pitch: number, [low, high]: readonly [number, number]): number => {
  const edge = (high - low) * EDGE
  return Math.max(0, Math.ceil(low + edge - pitch), Math.ceil(pitch - (high - edge)))
}

const strongCost = (pitch: number, moment: Moment, { school }: MakeRequest): number => {
  if (!moment.strong || school.strongBeats !== 'chord tones') return 0
  const role = roleOf(pitch, moment)
  return role === 'suspension' || role === 'outside' ? COSTS.strong : 0
}

/** What a group costs by itself where it stands. */
export const groupTerms = ({ pitches }: Standing, { moments }: GroupPlace, request: MakeRequest): Partial<Terms> => {
  const terms = { leaps: 0, range: 0, strong: 0, wayHome: 0 }
  for (const [i, pitch] of pitches.entries()) {
    const [moment, next, then] = [moments[i] as Moment, pitches[i + 1], moments[i + 1]]
    terms.range += outOfMiddle(pitch, request.range)
    terms.strong += strongCost(pitch, moment, request)
    if (next === undefined || !then) continue
    if (Math.abs(next - pitch) > FIFTH) terms.leaps += COSTS.leap
    terms.wayHome += wayHomeCost(pitch, moment, next, then)
  }
  return terms
}

/** A standing with what joining it to others needs, worked out once. */
export interface Node extends Standing {
  readonly own: number
  /** Its first pitch, and the first that sounds, its approach before it. */
  readonly first: number
  readonly sounds: number
  readonly last: number
  readonly beginsOutside: boolean
  readonly endsOutside: boolean
}

export const nodeOf = (s: Standing, group: GroupPlace, request: MakeRequest): Node => {
  const [first, last] = [s.pitches[0] as number, s.pitches[s.pitches.length - 1] as number]
  const [begin, end] = [group.moments[0] as Moment, group.moments[group.moments.length - 1] as Moment]
  return {
    ...s,
    own: sumOf(groupTerms(s, group, request)),
    ...{ first, last, sounds: s.approaches[0]?.[0] ?? first },
    beginsOutside: isOutside(first, begin),
    endsOutside: isOutside(last, end),
  }
}

const missesHome = (a: Node, b: Node): boolean => a.endsOutside && !b.beginsOutside && Math.abs(b.first - a.last) > 2

const isAgain = (a: Node, b: Node): boolean =>
  a.first === b.first && a.pitches.length === b.pitches.length && a.pitches.every((p, i) => p === b.pitches[i])

/** What it costs to go from one group into the next, without the turn. */
export const seamCost = (a: Node, b: Node): number =>
  joinCost(a.last, b.sounds) + (missesHome(a, b) ? COSTS.noWayHome : 0) + (isAgain(a, b) ? COSTS.again : 0)
export const seamTerms = (a: Node, b: Node): Partial<Terms> => ({
  joins: joinCost(a.last, b.sounds),
  wayHome: missesHome(a, b) ? COSTS.noWayHome : 0,
  again: isAgain(a, b) ? COSTS.again : 0,
})

/** What the end of a line costs: a note outside that goes nowhere. */
export const endCost = (a: Node): number => (a.endsOutside ? COSTS.noWayHome : 0)
