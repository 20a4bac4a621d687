import { barTicks, beatTicks, type Chart, type Metre } from '../chart/chart.ts'

/** Ticks from the start of the chart. */
export interface Span {
  readonly from: number
  readonly to: number
}

interface BarAt extends Span {
  readonly number: number
  readonly metre: Metre
  /** Where the groove's bar would begin: before the bar itself where that is a pickup. */
  readonly grooveFrom: number
}

/** Where each bar of a chart begins and ends. */
export const barsAt = (chart: Chart): readonly BarAt[] => {
  let from = 0
  return chart.bars.map((bar) => {
    const whole = barTicks(bar.metre)
    const length = bar.spots.reduce((sum, s) => sum + s.length, 0) || whole
    const at = {
      number: bar.number,
      metre: bar.metre,
      from,
      to: from + length,
      grooveFrom: from - (bar.number === 0 ? whole - length : 0),
    }
    from += length
    return at
  })
}

/** The moment of a beat of a bar, in ticks and their fractions. */
export const momentOf = (bar: Pick<BarAt, 'from' | 'metre'>, beat: number): number =>
  bar.from + (beat - 1) * beatTicks(bar.metre)

/** The span of the bars from one number to another, both included; null where there are none. */
export const spanOfBars = (chart: Chart, first: number, last: number): Span | null => {
  const bars = barsAt(chart).filter((b) => b.number >= first && b.number <= last)
  const [a, b] = [bars[0], bars.at(-1)]
  return a && b ? { from: a.from, to: b.to } : null
}
