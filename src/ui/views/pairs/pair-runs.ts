import { barTicks, type Overlay, type Reading, TICKS_PER_QUARTER } from '../../../core/index.ts'
import type { StripSpot } from '../../figures/strip-layout.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'

/** A pair over one chord, and how many triads of it are played there. */
export interface ChordRun {
  readonly reading: Reading
  readonly groups: readonly [Overlay, Overlay]
  readonly count: number
}

/** Three eighths to a triad. */
const EIGHTHS = 3
const MOST_BARS = 16

const isPair = (s: StripSpot | undefined): s is StripSpot & { readonly reading: Reading } =>
  s?.reading?.overlay.groups !== null && s?.reading !== null && s?.reading !== undefined

const goesOn = (a: Reading, b: Reading): boolean =>
  a.place.chord.symbol === b.place.chord.symbol && a.overlay.name === b.overlay.name

/**
 * The pairs that lie from the chord in view on, chord after chord, as long as each has one; a chord that is held over bar
 * lines is one run. A pair that stands alone is played for so many bars.
 */
export const runsFrom = (openChart: OpenChart, bars: number): readonly ChordRun[] => {
  const { spots, current, chart } = openChart
  if (!current || !chart || !isPair(current)) return []
  const eighth = TICKS_PER_QUARTER / 2
  const after = spots.slice(current.index + 1)
  const until = after.findIndex((s) => !isPair(s) || s.spot.bar - current.spot.bar >= MOST_BARS)
  const all = [current, ...(until < 0 ? after : after.slice(0, until))].filter(isPair)
  const together: { reading: Reading; eighths: number }[] = []
  for (const { reading, spot } of all) {
    const last = together.at(-1)
    if (last && goesOn(last.reading, reading)) last.eighths += spot.length / eighth
    else together.push({ reading, eighths: spot.length / eighth })
  }
  let played = 0
  let passed = 0
  return together.flatMap(({ reading, eighths }) => {
    const { groups } = reading.overlay
    if (!groups) return []
    passed += together.length === 1 ? Math.max(eighths, bars * (barTicks(current.spot.metre) / eighth)) : eighths
    const count = Math.max(together.length === 1 ? 2 : 1, Math.round(passed / EIGHTHS) - played)
    played += count
    return [{ reading, groups, count }]
  })
}
