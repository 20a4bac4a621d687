import { type Analysis, analyseChart } from '../chart/analyse.ts'
import type { Chart } from '../chart/chart.ts'
import { readChart } from '../chart/read-chart.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { planRoutes, type Route } from '../route/plan.ts'
import { NO_RULES, type RouteRules } from '../route/rules.ts'
import { type Slot, type SlotOptions, SPOT_BY_SPOT, slotsOf } from '../route/slots.ts'

/** For tests: a chart that must read, with its slots. */
export const chartOfWords = (
  text: string,
  wish: Partial<SlotOptions> = {},
  repeats = true,
): { readonly chart: Chart; readonly analysis: Analysis; readonly slots: readonly Slot[] } => {
  const read = readChart(text)
  if (!read.ok) throw new Error(text)
  const analysis = analyseChart(read.value, repeats)
  const slots = slotsOf(analysis, [], DEFAULT_SCHOOL, { ...SPOT_BY_SPOT, ...wish })
  return { chart: read.value, analysis, slots }
}

/** A planning run to its end. */
export const planned = (
  slots: readonly Slot[],
  rules: Partial<RouteRules>,
  best = 20,
  eachSeries = false,
): readonly Route[] => {
  const run = planRoutes(slots, { ...NO_RULES, ...rules }, DEFAULT_WEIGHTS, { best, eachSeries })
  let next = run.next()
  while (!next.done) next = run.next()
  return next.value
}
