import { choice, counted, flag, partOf, text, type ValueOf, whole } from '../codec.ts'

/** Beside the verdict: the note in view, the line of fade, where it lies in the chart, or what it is written with. */
export const LINE_SIDES = ['note', 'fade', 'table', 'placement', 'keys', 'neck'] as const
export type LineSide = (typeof LINE_SIDES)[number]

export const MOST_ZOOM = 3

/**
 * The line that is taken apart, and which of its notes is in view; whether it is being written, whether its tablature
 * stands under the staff, and how many steps wider or (below 0) narrower it is.
 */
export const LINE = partOf(
  {
    line: text,
    note: counted,
    lineSide: choice(LINE_SIDES, 'note'),
    write: flag,
    tab: flag,
    zoom: whole(0, -MOST_ZOOM, MOST_ZOOM),
  },
  { lineSide: 'beside' },
)
export type LinePart = ValueOf<typeof LINE>
