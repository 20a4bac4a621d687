import type { PcSet } from '../pitch/units.ts'
import { bestChains, type ChainWish, type Layer, placeIn } from './best-chains.ts'
import { FORBIDDEN } from './seam-rules.ts'
import type { Chain } from './shortlist.ts'

/** More than any chain can cost. */
export const NEVER = 1 << 29

/** After so many candidates whoever runs this may stop it. */
const PIECE = 8

/**
 * The least it costs to go on from each candidate of one layer, by what it costs from each of the next: the cheapest of
 * those first, until none that is left, though its seam were for nothing, undercuts what is found.
 */
function* aheadOf(from: Layer, to: Layer, next: Int32Array): Generator<undefined, Int32Array> {
  const least = new Int32Array(from.candidates.length).fill(NEVER)
  const rests = Int32Array.from(to.own, (own, at) => own + (next[at] as number))
  const cheapestFirst = [...rests.keys()].sort((a, b) => (rests[a] as number) - (rests[b] as number))
  for (const [i, at] of cheapestFirst.entries()) {
    const rest = rests[at] as number
    if (rest >= NEVER) break
    if (i % PIECE === PIECE - 1) {
      if (least.every((found) => found <= rest)) break
      yield
    }
    const set = to.sets[at] as PcSet
    const before = to.seam.before?.(set)
    if (before) {
      for (const s of before) {
        const p = placeIn(from, s)
        if (p !== undefined) least[p] = Math.min(least[p] as number, to.seam.cost(s, set) + rest)
      }
      continue
    }
    const row = to.seam.rowTo(set, from.sets)
    for (let p = 0; p < least.length; p++) {
      const seam = row[from.sets[p] as number] as number
      if (seam !== FORBIDDEN && seam + rest < (least[p] as number)) least[p] = seam + rest
    }
  }
  return least
}

/**
 * What it costs at least to go on from each candidate of each layer to the end: seams and steps, no repeats. Yields after
 * each layer.
 */
export function* costsAhead(layers: readonly Layer[]): Generator<number, readonly Int32Array[]> {
  const last = layers.length - 1
  const ahead: Int32Array[] = layers.map((l) => new Int32Array(l.candidates.length))
  for (let step = last - 1; step >= 0; step--) {
    const work = aheadOf(layers[step] as Layer, layers[step + 1] as Layer, ahead[step + 1] as Int32Array)
    let piece = work.next()
    for (; !piece.done; piece = work.next()) yield (last - step - 1) / layers.length
    ahead[step] = piece.value
  }
  return ahead
}

/**
 * How much dearer than the least possible a chain may be at first: often there are enough that cost the least, and nothing
 * else is looked at; else most of the best lie close together.
 */
const LEAST_ONLY = 1
const SLACK = 12

/**
 * The cheapest chains, exactly, found among those that cost no more than a limit; where they are too few the limit is
 * raised. What no chain can undercut is never looked at, which is most of it.
 */
export function* cheapestChains(
  layers: readonly Layer[],
  wish: ChainWish,
  known: readonly Int32Array[] | null = null,
): Generator<number, readonly Chain[]> {
  const ahead = known ?? (yield* costsAhead(layers))
  const own = (layers[0] as Layer).own
  const firsts = wish.first === null ? [...own.keys()] : [wish.first]
  const least = Math.min(NEVER, ...firsts.map((c) => (own[c] as number) + (ahead[0]?.[c] as number)))
  for (let slack = known ? SLACK : LEAST_ONLY; least < NEVER; slack = Math.max(SLACK, slack * 2)) {
    const bound = Math.min(wish.bound, least + slack)
    const chains = yield* bestChains(layers, { ...wish, bound, ahead })
    if (chains.length === wish.best || bound === wish.bound || bound >= NEVER) return chains
  }
  return []
}
