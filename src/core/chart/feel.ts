import type { Chart } from './chart.ts'

/** The manners a band plays in. `free drone` holds the chord without time. */
export const FEELS = ['swing', 'straight', 'bossa', 'samba', 'waltz', 'funk', 'free drone'] as const
export type Feel = (typeof FEELS)[number]

export const isFeel = (text: string): text is Feel => FEELS.some((f) => f === text)

/** The feel a chart names, else a waltz in three and swing in everything else. */
export const feelOf = ({ feel, metre }: Chart): Feel => feel ?? (metre.beats === 3 ? 'waltz' : 'swing')
