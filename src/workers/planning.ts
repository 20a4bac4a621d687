import {
  describeRoutes,
  type Interval,
  inPieces,
  type KeptOverride,
  type Loosening,
  loosen,
  type PentatonicNaming,
  planRoutes,
  type RouteReport,
  type RouteRequest,
  readRequest,
  readTune,
  rulesOver,
  type School,
  slotsOf,
  type Weights,
} from '../core/index.ts'

/** A planning in words that can be sent: the chart as it is kept, how far it is moved, and a request in moved names. */
export interface PlanAsk {
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly written: Interval
  readonly repeats: boolean
  readonly school: School
  readonly weights: Weights
  readonly naming: PentatonicNaming
  readonly request: RouteRequest
  readonly eachSeries: boolean
  readonly best: number
}

export type Planned =
  | { readonly kind: 'routes'; readonly routes: readonly RouteReport[]; readonly ms: number }
  /** No route: steps at which nothing is left, and what would have to give way. */
  | { readonly kind: 'none'; readonly empty: readonly number[]; readonly loosen: readonly Loosening[] }
  | { readonly kind: 'stopped' }
  | { readonly kind: 'wrong'; readonly text: string }

const groundOf = ({ text, overrides: kept, written, repeats, school, request, naming }: PlanAsk) => {
  const tune = readTune(text, kept, { written, repeats })
  const wishes = readRequest(request, naming)
  if (!tune.ok || !wishes.ok) return null
  const { analysis, overrides } = tune.value
  const slots = slotsOf(analysis, overrides, school, wishes.value.slots)
  return { slots, rules: rulesOver(slots, wishes.value) }
}

/** Lets what was sent meanwhile come in: the word to stop, or the next planning. */
const breath = (): Promise<void> =>
  new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel()
    port1.onmessage = () => {
      port1.close()
      resolve()
    }
    port2.postMessage(null)
  })

let asked = 0
/** Stops what is being planned. */
export const stopPlanning = (): void => {
  asked++
}

/** Plans routes, or says what would have to give way. A newer planning stops an older one. */
export const planning = async (ask: PlanAsk, onShare: (share: number) => void): Promise<Planned> => {
  const mine = ++asked
  const clock = (): number => performance.now()
  const since = clock()
  const ground = groundOf(ask)
  if (!ground) return { kind: 'wrong', text: 'The chart or the request does not read.' }
  const { slots, rules } = ground
  if (slots.length === 0) return { kind: 'wrong', text: 'There is no chord in these bars.' }
  const rest = async (share: number): Promise<boolean> => {
    onShare(share)
    await breath()
    return mine === asked
  }
  const options = { best: ask.best, eachSeries: ask.eachSeries }
  const routes = await inPieces(planRoutes(slots, rules, ask.weights, options), rest, clock)
  if (!routes) return { kind: 'stopped' }
  if (routes.length > 0) return { kind: 'routes', routes: describeRoutes(routes, ask.weights), ms: clock() - since }
  const impossible = await inPieces(loosen(slots, rules, ask.weights), rest, clock)
  return impossible ? { kind: 'none', ...impossible } : { kind: 'stopped' }
}
