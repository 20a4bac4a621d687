import { midi, TICKS_PER_QUARTER, ticks } from '../pitch/units.ts'
import { type Line, type LineNote, lineOf } from './line.ts'

/** What onsets and lengths are brought to: sixteenths, eighth triplets, or for each beat whichever lies nearer. */
export const GRIDS = ['nearest', 'sixteenths', 'triplets', 'none'] as const
export type Grid = (typeof GRIDS)[number]

/** A note as it was played: ticks that lie on no grid. */
export interface Played {
  readonly at: number
  readonly for: number
  readonly pitch: number
}

const GRID_STEPS: Readonly<Record<Exclude<Grid, 'nearest' | 'none'>, number>> = {
  sixteenths: TICKS_PER_QUARTER / 4,
  triplets: TICKS_PER_QUARTER / 3,
}

const missed = (notes: readonly Played[], step: number): number =>
  notes.reduce((sum, n) => sum + Math.abs(n.at - Math.round(n.at / step) * step), 0)

/** The step for each beat: of triplets and sixteenths the one its onsets lie nearer to, sixteenths where both do. */
const stepsByBeat = (notes: readonly Played[], grid: Grid): ((at: number) => number) => {
  if (grid === 'none') return () => 1
  if (grid !== 'nearest') return () => GRID_STEPS[grid]
  const beats = new Map<number, Played[]>()
  const beatOf = (at: number): number => Math.floor((at + GRID_STEPS.sixteenths / 4) / TICKS_PER_QUARTER)
  for (const n of notes) beats.set(beatOf(n.at), [...(beats.get(beatOf(n.at)) ?? []), n])
  return (at) => {
    const here = beats.get(beatOf(at)) ?? []
    return missed(here, GRID_STEPS.triplets) < missed(here, GRID_STEPS.sixteenths)
      ? GRID_STEPS.triplets
      : GRID_STEPS.sixteenths
  }
}

/**
 * Onsets brought to the grid. A note lasts to the next where it nearly does, else to the grid; never to nothing. Of notes
 * that begin together the highest is the line.
 */
export const quantised = (raw: readonly Played[], grid: Grid): Line => {
  const stepAt = stepsByBeat(raw, grid)
  const placed = raw.map((n): LineNote => {
    const step = stepAt(n.at)
    const at = Math.round(n.at / step) * step
    const end = Math.max(at + step, Math.round((n.at + n.for) / step) * step)
    return { at: ticks(at), for: ticks(end - at), pitch: midi(n.pitch) }
  })
  const line = lineOf(placed)
  return line.map((n, i) => {
    const next = line[i + 1]
    const gap = next ? next.at - (n.at + n.for) : 0
    const reach = next && (gap < 0 || (grid !== 'none' && gap < GRID_STEPS.sixteenths)) ? next.at - n.at : n.for
    return { ...n, for: ticks(Math.max(1, reach)) }
  })
}
