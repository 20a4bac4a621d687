import { proxy, type Remote, wrap } from 'comlink'
import type { Condensed, Line, LineAnalysis, LineAsk } from '../core/index.ts'
import type { AnalysisAsk } from './analysing.ts'
import type { HeardAsk, Made, MakeAsk, ReuseAsk, Reused } from './making.ts'
import type { PlanAsk, Planned } from './planning.ts'
import type { Ranking, RankingAsk } from './ranking.ts'
import type { TakeRead, TakeToRead } from './taking.ts'

export type { AnalysisAsk } from './analysing.ts'
export type { HeardAsk, Made, MadeLine, MakeAsk, ReuseAsk, Reused } from './making.ts'
export type { PlanAsk, Planned } from './planning.ts'
export type { Ranking, RankingAsk } from './ranking.ts'
export type { TakeRead, TakeToRead } from './taking.ts'

interface Ranker {
  readonly ranking: (ask: RankingAsk) => Ranking
}
interface Planner {
  readonly planning: (ask: PlanAsk, onShare: (share: number) => void) => Promise<Planned>
  readonly stopPlanning: () => void
}
interface Auditor {
  readonly takeLineApart: (ask: LineAsk) => LineAnalysis | null
  readonly readTake: (ask: TakeToRead) => TakeRead | null
}
interface Maker {
  readonly hearing: (ask: HeardAsk) => Line
  readonly making: (ask: MakeAsk) => Made
  readonly reusing: (ask: ReuseAsk) => Reused | null
}
interface Analyst {
  readonly analysing: (ask: AnalysisAsk) => Condensed | null
}

interface Crew<W> {
  /** Asks the worker, which starts at the first question; rejects where it does not load or dies, and then starts anew. */
  readonly ask: <T>(question: (worker: Remote<W>) => Promise<T>) => Promise<T>
  readonly ready: () => void
  /** Ends the worker and what it is at: what was asked rejects, and the next question starts it anew. */
  readonly stop: () => void
}

const crewOf = <W>(start: () => Worker): Crew<W> => {
  let live: { readonly worker: Remote<W>; readonly lost: Promise<never>; readonly end: (why: string) => void } | null =
    null
  const ready = () => {
    if (live) return live
    const thread = start()
    let lose: (why: Error) => void = () => undefined
    const lost = new Promise<never>((_, reject) => {
      lose = reject
    })
    const end = (why: string): void => {
      thread.terminate()
      live = null
      lose(new Error(why))
    }
    thread.addEventListener('error', (e) => {
      e.preventDefault()
      end('the worker did not load, or died')
    })
    // Where nobody asks anything just then, nobody has to hear of it.
    lost.catch(() => undefined)
    live = { worker: wrap<W>(thread), lost, end }
    return live
  }
  return {
    ask: async (question) => {
      const { worker, lost } = ready()
      return Promise.race([question(worker), lost])
    },
    stop: () => live?.end('stopped'),
    ready: () => {
      try {
        ready()
      } catch {
        // A browser without workers says so when something is asked of one.
      }
    },
  }
}

const analyst = crewOf<Analyst>(() => new Worker(new URL('./analysing.worker.ts', import.meta.url), { type: 'module' }))
const auditor = crewOf<Auditor>(() => new Worker(new URL('./auditing.worker.ts', import.meta.url), { type: 'module' }))
const startMaker = () => new Worker(new URL('./making.worker.ts', import.meta.url), { type: 'module' })
const maker = crewOf<Maker>(startMaker)
/** A making that is stopped does not take from a player what is to be heard next. */
const hearer = crewOf<Maker>(startMaker)
const ranker = crewOf<Ranker>(() => new Worker(new URL('./ranking.worker.ts', import.meta.url), { type: 'module' }))
const startPlanner = () => new Worker(new URL('./planning.worker.ts', import.meta.url), { type: 'module' })
/** What is asked about one step does not stop the planning of the whole: each has a worker of its own. */
const planners = { routes: crewOf<Planner>(startPlanner), others: crewOf<Planner>(startPlanner) } as const

/** Ranks in a worker. */
export const rankInWorker = (ask: RankingAsk): Promise<Ranking> => ranker.ask((w) => w.ranking(ask))

/** Makes lines in a worker. */
export const makeInWorker = (ask: MakeAsk): Promise<Made> => maker.ask<Made>(async (w) => w.making(ask))

/** Works out in a worker what sounds in a round that is heard. */
export const hearInWorker = (ask: HeardAsk): Promise<Line> => hearer.ask<Line>(async (w) => w.hearing(ask))

/** Ends the making that is under way. */
export const stopMakingInWorker = (): void => maker.stop()

/** Finds in a worker where else a lick serves. */
export const reuseInWorker = (ask: ReuseAsk): Promise<Reused | null> =>
  maker.ask<Reused | null>(async (w) => w.reusing(ask))

/** Analyses a long chart in a worker. */
export const analyseInWorker = (ask: AnalysisAsk): Promise<Condensed | null> => analyst.ask((w) => w.analysing(ask))

/** Takes a long line apart in a worker. */
export const analyseLineInWorker = (ask: LineAsk): Promise<LineAnalysis | null> =>
  auditor.ask((w) => w.takeLineApart(ask))

/** Reads a take in a worker. */
export const readTakeInWorker = (ask: TakeToRead): Promise<TakeRead | null> => auditor.ask((w) => w.readTake(ask))

/** Starts that worker before it is needed, so that nobody waits for it and its tables. */
export const readyAuditor = (): void => auditor.ready()

/** Plans in a worker, which tells the share done as it goes; a newer planning for the same stops an older one. */
export const planInWorker = (
  what: keyof typeof planners,
  ask: PlanAsk,
  onShare: (share: number) => void,
): Promise<Planned> => planners[what].ask<Planned>(async (w) => w.planning(ask, proxy(onShare)))

export const stopPlanningInWorker = (): Promise<void> => planners.routes.ask((w) => w.stopPlanning())
