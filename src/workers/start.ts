import { proxy, type Remote, wrap } from 'comlink'
import type { Condensed, LineAsk, Taken } from '../core/index.ts'
import type { AnalysisAsk } from './analysing.ts'
import type { PlanAsk, Planned } from './planning.ts'
import type { Ranking, RankingAsk } from './ranking.ts'

export type { AnalysisAsk } from './analysing.ts'
export type { PlanAsk, Planned } from './planning.ts'
export type { Ranking, RankingAsk } from './ranking.ts'

interface Ranker {
  readonly ranking: (ask: RankingAsk) => Ranking
}
interface Planner {
  readonly planning: (ask: PlanAsk, onShare: (share: number) => void) => Promise<Planned>
  readonly stopPlanning: () => void
}

interface Auditor {
  readonly takeLineApart: (ask: LineAsk) => Taken | null
}

interface Analyst {
  readonly analysing: (ask: AnalysisAsk) => Condensed | null
}

let analyst: Remote<Analyst> | undefined
let auditor: Remote<Auditor> | undefined
let ranker: Remote<Ranker> | undefined
let planner: Remote<Planner> | undefined

/** Ranks in a worker, which starts at the first question. */
export const rankAside = (ask: RankingAsk): Promise<Ranking> => {
  ranker ??= wrap<Ranker>(new Worker(new URL('./ranking.worker.ts', import.meta.url), { type: 'module' }))
  return ranker.ranking(ask)
}

/** Analyses a long chart in a worker. */
export const analyseAside = (ask: AnalysisAsk): Promise<Condensed | null> => {
  analyst ??= wrap<Analyst>(new Worker(new URL('./analysing.worker.ts', import.meta.url), { type: 'module' }))
  return analyst.analysing(ask)
}

const theAuditor = (): Remote<Auditor> => {
  auditor ??= wrap<Auditor>(new Worker(new URL('./auditing.worker.ts', import.meta.url), { type: 'module' }))
  return auditor
}

/** Takes a long line apart in a worker. */
export const takeApartAside = (ask: LineAsk): Promise<Taken | null> => theAuditor().takeLineApart(ask)

/** Starts that worker before it is needed, so that nobody waits for it and its tables. */
export const readyAuditor = (): void => {
  theAuditor()
}

/** Plans in a worker of its own, which tells the share done as it goes; a newer planning stops an older one. */
export const planAside = (ask: PlanAsk, onShare: (share: number) => void): Promise<Planned> => {
  planner ??= wrap<Planner>(new Worker(new URL('./planning.worker.ts', import.meta.url), { type: 'module' }))
  return planner.planning(ask, proxy(onShare))
}

export const stopPlanningAside = async (): Promise<void> => planner?.stopPlanning()
