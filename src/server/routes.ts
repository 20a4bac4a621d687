import {
  describeRoutes,
  loosen,
  MOST,
  type Override,
  PLAIN_REQUEST,
  planRoutes,
  type RecipeName,
  type RouteRequest,
  readChart,
  readRequest,
  recipesIn,
  rulesOver,
  type School,
  type Slot,
  SPOT_BY_SPOT,
  slotsOf,
  tuneOf,
  type Weights,
  withPlaces,
} from '../core/index.ts'
import { fieldProblem } from './problems.ts'
import { chartAt, orProblem, textProblem } from './texts.ts'

/** What `POST /routes/plan` takes. Steps are counted from 0 over the spots that have a chord. */
export interface PlanAsked
  extends Pick<
    RouteRequest,
    'bars' | 'families' | 'hold' | 'avoid' | 'fadeMin' | 'fadeMax' | 'landingMin' | 'rubsFrom' | 'motion' | 'loop'
  > {
  readonly text: string
  readonly key: string
  readonly arc: readonly number[] | null
  readonly motionScope: string
  readonly lock: readonly { readonly step: number; readonly overlay: string }[]
  readonly ban: readonly { readonly step?: number; readonly overlay?: string; readonly device?: string }[]
  readonly recipe: RecipeName | null
  readonly other: string | null
  readonly shift: number
  readonly eachSeries: boolean
  readonly limit: number
  readonly overrides: readonly Override[]
  readonly school: School
  readonly weights: Weights
}

const stepOf = (slots: readonly Slot[], step: number, path: string): Slot => {
  const slot = slots[step]
  if (slot) return slot
  const last = slots.length - 1
  throw fieldProblem(path, `There is no step ${step}: they are counted from 0 to ${last}.`, String(step), [
    `0 to ${last}`,
  ])
}

/** The request by places in the chart, as the core takes it. */
const requestOf = (asked: PlanAsked, slots: readonly Slot[]): RouteRequest => {
  const { arc, lock, ban, motionScope, bars } = asked
  if (arc && arc.length !== slots.length)
    throw fieldProblem('arc', `arc has ${arc.length} figures for ${slots.length} spots.`, String(arc.length), [
      `${slots.length} figures, one for each spot`,
    ])
  const { families, hold, avoid, fadeMin, fadeMax, landingMin, rubsFrom, motion, loop } = asked
  const at = ({ bar, beat }: Slot) => ({ bar, beat })
  return {
    ...PLAIN_REQUEST,
    ...{ bars, hold, avoid, fadeMin, fadeMax, landingMin, rubsFrom, motion, loop },
    families: families.length > 0 ? families : PLAIN_REQUEST.families,
    scope: motionScope,
    arc: slots.flatMap((s, i) => (arc ? [{ ...at(s), fade: arc[i] as number }] : [])),
    locks: lock.map((l, i) => ({ ...at(stepOf(slots, l.step, `lock.${i}.step`)), overlay: l.overlay })),
    bans: ban.map(({ step, ...b }, i) =>
      step === undefined ? b : { ...b, ...at(stepOf(slots, step, `ban.${i}.step`)) },
    ),
  }
}

const groundOf = (asked: PlanAsked) => {
  const chart = chartAt(asked.text, asked.key)
  const other = asked.other === null ? null : { chart: orProblem('other', readChart(asked.other)), shift: asked.shift }
  const { analysis } = tuneOf(chart, asked.overrides)
  const slots = slotsOf(analysis, asked.overrides, asked.school, { ...SPOT_BY_SPOT, bars: asked.bars })
  if (slots.length > MOST.steps)
    throw fieldProblem('bars', `There are ${slots.length} steps; plan ${MOST.steps} at a time.`, '', ['fewer bars'])
  if (slots.length === 0)
    throw fieldProblem(asked.bars ? 'bars' : 'text', 'There is no chord there to lay anything over.', '', ['a chord'])
  return { chart, analysis, slots, school: asked.school, other }
}

/** A planning from its begin to its end. */
const finished = <R>(work: Generator<number, R>): R => {
  let next = work.next()
  while (!next.done) next = work.next()
  return next.value
}

/** Plans routes as the interface answers them. */
export const planAnswer = (asked: PlanAsked) => {
  const ground = groundOf(asked)
  const plain = requestOf(asked, ground.slots)
  const recipe = recipesIn(ground).find((r) => r.name === asked.recipe)
  if (asked.recipe !== null && !recipe)
    return { routes: [], impossible: { steps: [], loosen: [`${asked.recipe} applies nowhere in these bars.`] } }
  const read = readRequest(withPlaces(plain, recipe?.places ?? []), 'as minor')
  if (!read.ok) throw textProblem(read.error.path, read.error.error)
  const { analysis, school } = ground
  const { weights } = asked
  const slots = slotsOf(analysis, asked.overrides, school, read.value.slots)
  const rules = rulesOver(slots, read.value)
  const options = { best: asked.limit, eachSeries: asked.eachSeries }
  const routes = finished(planRoutes(slots, rules, weights, options))
  const reasons = recipe ? [recipe.reason] : []
  if (routes.length > 0) {
    const reports = describeRoutes(routes, weights)
    return { routes: reports.map((r) => ({ ...r, why: [...reasons, ...r.why] })), impossible: null }
  }
  const impossible = finished(loosen(slots, rules, weights))
  return { routes: [], impossible: { steps: impossible.empty, loosen: impossible.loosen.map((l) => l.text) } }
}
