/** Sizes of a line's staff: `scale` of the notation's own units, heights in px; the tablature stands under it. */
const SPACE = 10
/** From a stave's top to its middle line, in the notation's own units. */
const MIDDLE_LINE = 60

export const STAFF = { scale: 0.78, top: -7, height: 96, tab: 84, tabHeight: 60, gutter: 92 } as const

/** The staff position a height means: letters upward from the clef's middle line; `y` in px from the staff's top. */
export const stepsFromMiddle = (y: number): number =>
  Math.round((STAFF.scale * (STAFF.top + MIDDLE_LINE) - y) / ((STAFF.scale * SPACE) / 2))

/** Letter and octave of a clef's middle line, as one number: seven to the octave, C0 = 0. */
export const MIDDLE = { treble: 4 * 7 + 6, alto: 4 * 7, bass: 3 * 7 + 1 } as const

export const staffHeight = (withTab: boolean): number => STAFF.height + (withTab ? STAFF.tabHeight : 0)

const MIDDLE_PITCH = { treble: 71, alto: 60, bass: 50 } as const
/** Letters from the middle line up to a note that still stands free of what is above the staff. */
const FREE = 6

/** How far a staff must stand lower, px, for a note as high as that (MIDI). */
export const liftOver = (highest: number, clef: keyof typeof MIDDLE_PITCH): number => {
  const letters = ((highest - MIDDLE_PITCH[clef]) * 7) / 12
  return Math.max(0, Math.ceil((letters - FREE) * STAFF.scale * (SPACE / 2)))
}
