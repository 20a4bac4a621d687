import { type KeyboardEvent, useState } from 'react'

export interface Spot2D {
  readonly x: number
  readonly y: number
}

const WAYS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
/** Straying sideways costs more than going far. */
const STRAY = 3

/** The nearest place in a direction, by index; the same place where there is none. */
export const stepTo = (places: readonly Spot2D[], from: number, key: string): number => {
  const [way, here] = [WAYS[key], places[from]]
  if (!way || !here) return from
  const [dx, dy] = way
  let best = from
  let cost = Number.POSITIVE_INFINITY
  for (const [i, p] of places.entries()) {
    const [ahead, aside] = [(p.x - here.x) * dx + (p.y - here.y) * dy, (p.x - here.x) * dy + (p.y - here.y) * dx]
    if (ahead <= 0.5) continue
    const c = ahead + STRAY * Math.abs(aside)
    if (c < cost) [best, cost] = [i, c]
  }
  return best
}

/** A group that is one tab stop; arrows walk its places. Places carry `data-at` with their index. */
export const useWalk = (places: readonly Spot2D[]) => {
  const [at, setAt] = useState(0)
  const stop = Math.min(at, places.length - 1)
  const onKeyDown = (event: KeyboardEvent<Element>): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || event.shiftKey) return
    const end = event.key === 'Home' ? 0 : event.key === 'End' ? places.length - 1 : null
    if (end === null && !WAYS[event.key]) return
    event.preventDefault()
    event.stopPropagation()
    const to = end ?? stepTo(places, stop, event.key)
    setAt(to)
    event.currentTarget.querySelector<SVGElement | HTMLElement>(`[data-at="${to}"]`)?.focus()
  }
  return { stop, setAt, onKeyDown }
}

/** Enter and Space press a place, and nothing else. */
export const pressed =
  (act: () => void) =>
  (event: KeyboardEvent): void => {
    if (event.key !== 'Enter' && event.key !== ' ') return
    event.preventDefault()
    event.stopPropagation()
    act()
  }
