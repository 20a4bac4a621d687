import { joinCost, type Node } from './costs.ts'
import type { GroupPlace } from './groups.ts'
import type { MakeRequest, TriadOrder } from './request.ts'

/** Whether groups go up or down; 0 before the second. */
export type Way = -1 | 0 | 1

const bottom = ({ pitches }: Node): number => Math.min(...pitches)

/** The way from one group to the next: by their first notes, as before where those are the same or a climb goes on over a change. */
export const wayOf = (a: Node, b: Node, before: Way, group: GroupPlace, { path }: MakeRequest): Way => {
  if (group.nth === 0 && before !== 0 && (path === 'up' || path === 'down')) return before
  const by = b.first - a.first
  return by === 0 ? before : by > 0 ? 1 : -1
}

/** Which triad of a pair may begin a span, and which follows the one before. */
const followsInOrder = (a: Node, b: Node, { nth }: GroupPlace, order: TriadOrder): boolean => {
  if (order === 'first' || order === 'second') return b.material === (order === 'first' ? 0 : 1)
  if (nth === 0) return true
  const goesOn = order === 'two by two' && nth % 2 === 1
  return goesOn ? a.material === b.material : a.material !== b.material
}

export const mayBegin = (s: Node, { span }: GroupPlace, { order }: MakeRequest): boolean =>
  span.materials.length === 1 || (order === 'second' ? s.material === 1 : s.material === 0)

/** Which way a line goes into a group: as the path asks, turned round at a wave's end. */
const wished = (way: Way, index: number, { path, wave, inversion }: MakeRequest): 1 | -1 => {
  if (path === 'wave') return Math.floor((index - 1) / wave) % 2 === 0 ? 1 : -1
  return way === 0 ? (path === 'down' || inversion === 'fall' ? -1 : 1) : way
}

const nearestIn = (a: Node, all: readonly Node[]): readonly Node[] => {
  const least = Math.min(...all.map((b) => joinCost(a.last, b.sounds)))
  return all.filter((b) => joinCost(a.last, b.sounds) === least)
}

/** Triads that are kept in their inversion, where there are any. */
const likeIt = (a: Node, all: readonly Node[], { span }: GroupPlace, { inversion }: MakeRequest): readonly Node[] => {
  if (inversion !== 'kept' || !span.materials[0].inThirds) return all
  const alike = all.filter((b) => b.inversion === a.inversion)
  return alike.length > 0 ? alike : all
}

/** Within a material: the figure's own step along a scale, or the next triad in the way the line goes. */
const stepping = (
  a: Node,
  all: readonly Node[],
  group: GroupPlace,
  way: 1 | -1,
  request: MakeRequest,
): readonly Node[] => {
  const [material] = group.span.materials
  if (!material.inThirds) {
    const step = Math.abs(request.figure.step) * way
    return all.filter((b) => b.place === a.place + step)
  }
  const beyond = all.filter(
    (b) => Math.sign(bottom(b) - bottom(a)) === way && (request.inversion !== 'kept' || a.inversion === b.inversion),
  )
  const least = Math.min(...beyond.map((b) => Math.abs(bottom(b) - bottom(a))))
  return beyond.filter((b) => Math.abs(bottom(b) - bottom(a)) === least)
}

/**
 * The groups that may follow one: all of them on a free path; else along the material, turned round at the range's end,
 * and at a change of material from the nearest note.
 */
export const following = (
  a: Node,
  way: Way,
  all: readonly Node[],
  group: GroupPlace,
  index: number,
  request: MakeRequest,
): readonly Node[] => {
  const allowed =
    group.span.materials.length === 1 ? all : all.filter((b) => followsInOrder(a, b, group, request.order))
  if (group.isEnd && request.landing?.how === 'held') return allowed.filter((b) => b.first === a.last)
  if (request.path === 'free') return allowed
  if (request.path === 'nearest' || group.nth === 0) return nearestIn(a, likeIt(a, allowed, group, request))
  const to = wished(way, index, request)
  const on = stepping(a, allowed, group, to, request)
  if (on.length > 0) return on
  const back = stepping(a, allowed, group, to === 1 ? -1 : 1, request)
  return back.length > 0 ? back : nearestIn(a, allowed)
}
