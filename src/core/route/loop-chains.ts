import { type ChainWish, type Layer, NO_DEVICE, placesOf } from './best-chains.ts'
import { cheapestChains, costsAhead, NEVER } from './deepening.ts'
import type { SeamRule } from './seam-rules.ts'
import type { Chain } from './shortlist.ts'

/** The first step once more, after the last: it costs nothing but the seam that leads to it. */
const firstAgain = (layer: Layer, first: number, seam: SeamRule): Layer => ({
  ...layer,
  candidates: layer.candidates.slice(first, first + 1),
  sets: layer.sets.slice(first, first + 1),
  own: new Int32Array(1),
  devices: new Int32Array([NO_DEVICE]),
  placeOfSet: placesOf(layer.sets.slice(first, first + 1)),
  seam,
  held: false,
  closes: true,
})

/**
 * The cheapest chains whose last step joins the first, exactly: one search for each first step, the most promising first,
 * until no other can be cheaper than the best found. Repeats are counted from the first step to the last.
 */
export function* bestLoops(
  layers: readonly Layer[],
  closing: SeamRule,
  wish: ChainWish,
): Generator<number, readonly Chain[]> {
  const ahead = [...(yield* costsAhead(layers)), new Int32Array(1)]
  const start = layers[0] as Layer
  const least = (c: number): number => (start.own[c] as number) + (ahead[0]?.[c] as number)
  const firsts = [...start.own.keys()].filter((c) => least(c) < NEVER).sort((a, b) => least(a) - least(b))
  let found: readonly Chain[] = []
  let bound = wish.bound
  for (const [done, first] of firsts.entries()) {
    if (least(first) >= bound) break
    const run = cheapestChains([...layers, firstAgain(start, first, closing)], { ...wish, first, bound }, ahead)
    let next = run.next()
    for (; !next.done; next = run.next()) yield (done + next.value) / firsts.length
    found = cheapest([...found, ...next.value], wish)
    if (found.length === wish.best) bound = found.at(-1)?.cost ?? bound
  }
  return found.flatMap((chain) => (chain.from ? { ...chain.from, cost: chain.cost } : []))
}

/** The best of several searches; of one series only the cheapest, where series count. */
export const cheapest = <C extends Pick<Chain, 'cost' | 'series'>>(
  chains: readonly C[],
  wish: ChainWish,
): readonly C[] => {
  const seen = new Set<number>()
  const sorted = [...chains].sort((a, b) => a.cost - b.cost)
  const told = wish.eachSeries ? sorted.filter((c) => !seen.has(c.series) && seen.add(c.series)) : sorted
  return told.slice(0, wish.best)
}
