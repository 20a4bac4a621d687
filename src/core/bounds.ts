/**
 * The most that is taken at once, in the core as at every door to it: more than any player brings, and little enough
 * that no text or line of notes can hold anybody up. Ticks are counted from the start of a line.
 */
export const MOST = {
  /** Bars of a chart, as written and as played. */
  bars: 2000,
  /** Chords of a chart as it is played, one counted anew in each bar. */
  chords: 4000,
  chordsInBar: 64,
  notes: 8192,
  /** Notes of a lick that is looked for elsewhere. */
  lick: 256,
  /** The bars of a chart in four quarters. */
  ticks: 2000 * 4 * 960,
  /** Steps of one planning. */
  steps: 512,
} as const

/** A figure as it is said: 4,000. */
export const printCount = (n: number): string => n.toLocaleString('en')
