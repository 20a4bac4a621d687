import {
  addTerms,
  COSTS,
  endCost,
  groupTerms,
  NO_TERMS,
  type Node,
  nodeOf,
  seamCost,
  seamTerms,
  type Terms,
} from './costs.ts'
import { type GroupPlace, type Standing, standingsOf } from './groups.ts'
import { following, mayBegin, type Way, wayOf } from './paths.ts'
import type { MakeRequest } from './request.ts'

/** A line as the groups it is made of, with what it costs. */
export interface FoundLine {
  readonly standings: readonly Standing[]
  readonly terms: Terms
  readonly total: number
}

/** One way to have come to a group: where it stands, which way it was come, and from where. */
interface Path {
  readonly cost: number
  readonly node: Node
  readonly way: Way
  readonly before: Path | null
}

/** Into a list that is kept cheapest first and no longer than `most`. */
const putIn = (list: Path[], path: Path, most: number): void => {
  let i = list.length < most ? list.length : most - 1
  while (i > 0 && (list[i - 1] as Path).cost > path.cost) {
    list[i] = list[i - 1] as Path
    i--
  }
  list[i] = path
}

const WAYS = [-1, 0, 1] as const

/** The paths that came to each standing of a group, by the way they came. */
type Reached = Map<Node, readonly [Path[], Path[], Path[]]>

const begun = (group: GroupPlace, nodes: readonly Node[], request: MakeRequest): Reached =>
  new Map(
    nodes
      .filter((n) => mayBegin(n, group, request))
      .map((node) => [node, [[], [{ cost: node.own, node, way: 0, before: null }], []]]),
  )

const turnCost = (way: Way, to: Way): number => (way !== 0 && to !== 0 && to !== way ? COSTS.turn : 0)

const goneOn = (
  reached: Reached,
  group: GroupPlace,
  nodes: readonly Node[],
  index: number,
  request: MakeRequest,
  most: number,
): Reached => {
  const next: Reached = new Map()
  for (const [a, byWay] of reached)
    for (const way of WAYS) {
      const paths = byWay[way + 1] as readonly Path[]
      if (paths.length === 0) continue
      for (const b of following(a, way, nodes, group, index, request)) {
        const to = wayOf(a, b, way, group, request)
        const by = seamCost(a, b) + turnCost(way, to) + b.own
        const lists = next.get(b) ?? ([[], [], []] as const satisfies readonly Path[][])
        if (lists.every((l) => l.length === 0)) next.set(b, lists)
        const list = lists[to + 1] as Path[]
        for (const before of paths) {
          const cost = before.cost + by
          if (list.length === most && (list[most - 1] as Path).cost <= cost) break
          putIn(list, { cost, node: b, way: to, before }, most)
        }
      }
    }
  return next
}

const unrolled = (path: Path): readonly Node[] => {
  const all: Node[] = []
  for (let p: Path | null = path; p; p = p.before) all.push(p.node)
  return all.reverse()
}

/** What a line costs, by terms. */
const termsOf = (nodes: readonly Node[], groups: readonly GroupPlace[], request: MakeRequest): Terms => {
  let terms = NO_TERMS
  let way: Way = 0
  for (const [i, node] of nodes.entries()) {
    const [group, before] = [groups[i] as GroupPlace, nodes[i - 1]]
    terms = addTerms(terms, groupTerms(node, group, request))
    if (!before) continue
    const to = wayOf(before, node, way, group, request)
    terms = addTerms(terms, { ...seamTerms(before, node), turns: turnCost(way, to) })
    way = to
  }
  const last = nodes.at(-1)
  return addTerms(terms, { wayHome: last ? endCost(last) : 0 })
}

const pitchesOf = (standings: readonly Standing[]): readonly number[] => standings.flatMap((s) => s.pitches)

/** Of equal cost by what they sound, so that the same is found each time. */
const inOrder = (a: FoundLine, b: FoundLine): number => {
  if (a.total !== b.total) return a.total - b.total
  const [x, y] = [pitchesOf(a.standings), pitchesOf(b.standings)]
  const i = x.findIndex((p, k) => p !== y[k])
  return i < 0 ? 0 : (x[i] as number) - (y[i] as number)
}

/** Paths to the end, and up to which cost none is missing. */
const search = (
  groups: readonly GroupPlace[],
  nodes: readonly (readonly Node[])[],
  request: MakeRequest,
  most: number,
): { readonly paths: readonly Path[]; readonly surely: number } => {
  let reached = begun(groups[0] as GroupPlace, nodes[0] ?? [], request)
  for (let i = 1; i < groups.length; i++)
    reached = goneOn(reached, groups[i] as GroupPlace, nodes[i] ?? [], i, request, most)
  let surely = Number.POSITIVE_INFINITY
  const paths = [...reached].flatMap(([node, byWay]) =>
    byWay.flatMap((list) => {
      const by = endCost(node)
      if (list.length === most) surely = Math.min(surely, (list.at(-1) as Path).cost + by)
      return list.map((p) => ({ ...p, cost: p.cost + by }))
    }),
  )
  return { paths: paths.sort((a, b) => a.cost - b.cost), surely }
}

/** Different standings may sound the same where a group is cut; then more are looked for. */
const MOST_LOOKED_FOR = 512

/** The cheapest different lines through groups, by dynamic programming; fewer where there are no more. */
export const bestLines = (
  groups: readonly GroupPlace[],
  request: MakeRequest,
  ends: readonly Standing[] | null = null,
): readonly FoundLine[] => {
  const { limit } = request
  const standings = standingsOf(groups, request)
  const nodes = groups.map((g, i) =>
    ((i === groups.length - 1 ? ends : null) ?? standings[i] ?? []).map((s) => nodeOf(s, g, request)),
  )
  for (let most = limit; ; most *= 2) {
    const { paths, surely } = search(groups, nodes, request, most)
    const found = new Map<string, FoundLine>()
    for (const path of paths) {
      if (found.size > 2 * limit) break
      const own = unrolled(path)
      const key = pitchesOf(own).join()
      if (!found.has(key)) found.set(key, { standings: own, terms: termsOf(own, groups, request), total: path.cost })
    }
    const best = [...found.values()].sort(inOrder).slice(0, limit)
    const isSure = surely === Number.POSITIVE_INFINITY || (best.length === limit && (best.at(-1)?.total ?? 0) <= surely)
    if (isSure || most >= MOST_LOOKED_FOR) return best
  }
}
