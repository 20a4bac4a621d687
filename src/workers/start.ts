import { type Remote, wrap } from 'comlink'
import type { Ranking, RankingAsk } from './ranking.ts'

export type { Ranking, RankingAsk } from './ranking.ts'

interface Ranker {
  readonly ranking: (ask: RankingAsk) => Ranking
}

let ranker: Remote<Ranker> | undefined

/** Ranks in a worker, which starts at the first question. */
export const rankAside = (ask: RankingAsk): Promise<Ranking> => {
  ranker ??= wrap<Ranker>(new Worker(new URL('./ranking.worker.ts', import.meta.url), { type: 'module' }))
  return ranker.ranking(ask)
}
