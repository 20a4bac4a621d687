import { groupedBy } from '../grouped.ts'
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

const BEAT = TICKS_PER_QUARTER
/** Where the second of two swung eighths may fall, as a part of the beat; nearer the middle they are even. */
const SWUNG = { least: 0.56, most: 0.74 } as const
const ON_BEAT = 0.12

/** How one beat is heard: on its sixteenths, in three, or as two swung eighths, which are written even. */
type Heard = 'sixteenths' | 'triplets' | 'swung'

const partOf = (at: number): number => {
  const part = (((at % BEAT) + BEAT) % BEAT) / BEAT
  return part > 1 - ON_BEAT / 2 ? 0 : part
}

/** A beat in three in which nothing falls on its second third has two swung eighths, not a triplet. */
const heardAs = (here: readonly Played[], after: readonly Played[]): Heard => {
  if (missed(here, GRID_STEPS.triplets) >= missed(here, GRID_STEPS.sixteenths)) return 'sixteenths'
  const late = here.filter((n) => partOf(n.at) >= SWUNG.least && partOf(n.at) <= SWUNG.most)
  const other = here.filter((n) => partOf(n.at) > ON_BEAT && !late.includes(n))
  // Quarter triplets go on over the next beat: on its second third, and not on the beat itself.
  const goesOn =
    after.some((n) => Math.abs(partOf(n.at) - 1 / 3) < ON_BEAT) && !after.some((n) => partOf(n.at) < ON_BEAT)
  return late.length > 0 && other.length === 0 && !goesOn ? 'swung' : 'triplets'
}

/** A moment of a swung beat as it would stand in an even one. */
const evened = (at: number): number => {
  const part = partOf(at)
  const start = Math.round(at / BEAT - part) * BEAT
  const third = 2 / 3
  return start + BEAT * (part < third ? part * 0.75 : 0.5 + (part - third) * 1.5)
}

/** Brings moments to the grid of a beat, and says what the shortest note on it is. */
interface BeatGrid {
  readonly bring: (at: number) => number
  readonly least: number
}

const stepped = (step: number): BeatGrid => ({ bring: (at) => Math.round(at / step) * step, least: step })
const EVEN_STEP = BEAT / 2
const BEAT_GRIDS: Readonly<Record<Heard, BeatGrid>> = {
  sixteenths: stepped(GRID_STEPS.sixteenths),
  triplets: stepped(GRID_STEPS.triplets),
  swung: { bring: (at) => Math.round(evened(at) / EVEN_STEP) * EVEN_STEP, least: EVEN_STEP },
}

const beatAt = (at: number): number => Math.floor((at + GRID_STEPS.sixteenths / 4) / BEAT)
/** What a beat may be written in, the plainest first: sixteenths, eighth triplets, 32nds, sixteenth triplets, fives. */
const WRITTEN_STEPS = [BEAT / 4, BEAT / 3, BEAT / 8, BEAT / 6, BEAT / 5, BEAT / 24] as const
/** A file of coarser ticks misses a place by so much. */
const MISSED = 2
const standsOn = (at: number, step: number): boolean => Math.abs(at - Math.round(at / step) * step) <= MISSED
const isWritten = (at: number): boolean => WRITTEN_STEPS.some((step) => standsOn(at, step))
/** The plainest grid that all of some moments stand on. */
const writtenStep = (moments: readonly number[]): number =>
  WRITTEN_STEPS.find((step) => moments.every((m) => standsOn(m, step))) ?? BEAT / 24

/** For each beat whichever lies nearer. Where every note stands on the grid to a tick it was written: nothing swings. */
const nearestGrid = (notes: readonly Played[]): ((at: number) => BeatGrid) => {
  const beats = groupedBy(notes, (n) => beatAt(n.at))
  if (notes.every((n) => isWritten(n.at))) {
    const steps = new Map([...beats].map(([beat, here]) => [beat, writtenStep(here.map((n) => n.at))]))
    return (at) => stepped(steps.get(beatAt(at)) ?? GRID_STEPS.sixteenths)
  }
  const byBeat = new Map([...beats].map(([beat, here]) => [beat, heardAs(here, beats.get(beat + 1) ?? [])]))
  return (at) => BEAT_GRIDS[byBeat.get(beatAt(at)) ?? 'sixteenths']
}

const gridOf = (notes: readonly Played[], grid: Grid): ((at: number) => BeatGrid) => {
  if (grid === 'nearest') return nearestGrid(notes)
  const one = stepped(grid === 'none' ? 1 : GRID_STEPS[grid])
  return () => one
}

const SMALL_GAP = GRID_STEPS.sixteenths

/** Notes of which each begins and ends where it can be written: they stay as they are, but for a tick of a coarser file. */
const asWritten = (raw: readonly Played[]): Line | null => {
  if (!raw.every((n) => isWritten(n.at) && isWritten(n.at + n.for))) return null
  const exact = (moment: number): number => {
    const step = WRITTEN_STEPS.find((s) => standsOn(moment, s)) ?? 1
    return Math.round(moment / step) * step
  }
  return lineOf(
    raw.map((n) => ({ at: ticks(exact(n.at)), for: ticks(exact(n.at + n.for) - exact(n.at)), pitch: midi(n.pitch) })),
  )
}

/**
 * Onsets brought to the grid. A note lasts to the next where it nearly does, else to the grid; never to nothing. Of notes
 * that begin together the highest is the line. Swung eighths are written even: a band plays them swung. What stands
 * exactly where it can be written is kept so.
 */
export const quantised = (raw: readonly Played[], grid: Grid): Line => {
  const written = grid === 'nearest' ? asWritten(raw) : null
  if (written) return written
  const gridAt = gridOf(raw, grid)
  const placed = raw.map((n): LineNote => {
    const { bring, least } = gridAt(n.at)
    const at = bring(n.at)
    const end = Math.max(at + least, gridAt(n.at + n.for - 1).bring(n.at + n.for))
    return { at: ticks(at), for: ticks(end - at), pitch: midi(n.pitch) }
  })
  const line = lineOf(placed)
  return line.map((n, i) => {
    const next = line[i + 1]
    const gap = next ? next.at - (n.at + n.for) : 0
    const reach = next && (gap < 0 || (grid !== 'none' && gap < SMALL_GAP)) ? next.at - n.at : n.for
    return { ...n, for: ticks(Math.max(1, reach)) }
  })
}
