import { barTicks, type Chart } from '../chart/chart.ts'

/** Ticks from the start of the chart. */
export interface Span {
  readonly from: number
  readonly to: number
}

interface BarAt extends Span {
  readonly number: number
  /** Where the groove's bar would begin: before the bar itself where that is a pickup. */
  readonly grooveFrom: number
}

/** Where each bar of a chart begins and ends. */
export const barsAt = (chart: Chart): readonly BarAt[] => {
  const whole = barTicks(chart.metre)
  let from = 0
  return chart.bars.map((bar) => {
    const length = bar.spots.reduce((sum, s) => sum + s.length, 0) || whole
    const at = {
      number: bar.number,
      from,
      to: from + length,
      grooveFrom: from - (bar.number === 0 ? whole - length : 0),
    }
    from += length
    return at
  })
}

/** The span of the bars from one number to another, both included; null where there are none. */
export const spanOfBars = (chart: Chart, first: number, last: number): Span | null => {
  const bars = barsAt(chart).filter((b) => b.number >= first && b.number <= last)
  const [a, b] = [bars[0], bars.at(-1)]
  return a && b ? { from: a.from, to: b.to } : null
}
