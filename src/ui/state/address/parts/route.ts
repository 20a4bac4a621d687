import { type Codec, choice, flag, partOf, text, type ValueOf } from '../codec.ts'

export const ROUTE_PANELS = ['step', 'rules', 'recipes', 'seam', 'kept'] as const
export type RoutePanel = (typeof ROUTE_PANELS)[number]

const MOST_PICKED = 99
/** Which of the ranked chains is in view, from 0; null for the route in hand. */
const pick: Codec<number | null> = {
  first: null,
  read: (t) => (/^\d{1,2}$/.test(t) ? Math.min(MOST_PICKED, Number(t)) : null),
  write: String,
}

/**
 * What is asked of a route, in words (null: what is asked at first); which of the ranked chains is in view; a kept route
 * that is laid beside it; whether the band is near, with names, instead of the whole form.
 */
export const ROUTE = partOf({
  plan: text,
  pick,
  panel: choice(ROUTE_PANELS, 'step'),
  against: text,
  near: flag,
})
export type RoutePart = ValueOf<typeof ROUTE>
