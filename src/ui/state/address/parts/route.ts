import { choice, counted, partOf, text, type ValueOf } from '../codec.ts'

export const ROUTE_PANELS = ['step', 'rules', 'recipes', 'seam', 'kept'] as const
export type RoutePanel = (typeof ROUTE_PANELS)[number]

/**
 * What is asked of a route, in words (null: what is asked at first); which of the ranked routes is in view; a kept route
 * that is followed, so that the strip, the Desk and the stand show its overlays; one that is laid beside it.
 */
export const ROUTE = partOf({
  plan: text,
  pick: counted,
  panel: choice(ROUTE_PANELS, 'step'),
  route: text,
  against: text,
})
export type RoutePart = ValueOf<typeof ROUTE>
