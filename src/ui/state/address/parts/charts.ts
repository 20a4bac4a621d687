import { choice, partOf, text, type ValueOf, whole } from '../codec.ts'

export const LIBRARY_ORDERS = ['-updatedAt', 'title', 'createdAt'] as const
export type LibraryOrder = (typeof LIBRARY_ORDERS)[number]

export const CHART_SIDES = ['harmony', 'instead', 'over'] as const
export type ChartSide = (typeof CHART_SIDES)[number]
const MOST_SHIFT = 6

/**
 * What the library is searched for and its order; beside the chart's text its harmony, what could stand there instead, or
 * another chart laid over it, moved by so many semitones.
 */
export const CHARTS = partOf({
  search: text,
  order: choice(LIBRARY_ORDERS, '-updatedAt'),
  side: choice(CHART_SIDES, 'harmony'),
  other: text,
  shift: whole(0, -MOST_SHIFT, MOST_SHIFT),
})
export type ChartsPart = ValueOf<typeof CHARTS>
