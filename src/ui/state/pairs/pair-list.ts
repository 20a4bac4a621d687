import {
  type MapCell,
  type Overlay,
  PAIR_QUALITIES,
  pairMap,
  type Place as Spotted,
  type Weights,
} from '../../../core/index.ts'
import { $address, go } from '../address/address.ts'
import type { Shared } from '../address/parts/pairs.ts'
import { layWritten } from '../tune/laying.ts'
import type { OpenChart } from '../tune/open-chart.ts'

type PairMap = readonly (readonly MapCell[])[]
let last: { readonly key: string; readonly weights: Weights; readonly map: PairMap } | null = null

/** The pair map over a spot, remembered for the latest. */
export const mapFor = (spot: Spotted, distance: number, weights: Weights): PairMap => {
  const key = JSON.stringify([
    spot.chord.symbol,
    spot.next?.symbol,
    spot.job?.kind,
    spot.home.first.set,
    spot.school,
    distance,
  ])
  if (last?.key !== key || last.weights !== weights) last = { key, weights, map: pairMap(spot, distance, weights) }
  return last.map
}

/** Where a pair stands: the root distance, and row and column of its cell. */
export interface CellAt {
  readonly distance: number
  readonly row: number
  readonly column: number
}

export const cellOf = ({ groups }: Overlay): CellAt | null => {
  const [a, b] = groups ?? []
  if (!a?.material || !b?.material) return null
  const apart = (b.root.pc - a.root.pc + 12) % 12
  const [low, high] = apart <= 6 ? [a.material, b.material] : [b.material, a.material]
  return {
    distance: Math.min(apart, 12 - apart),
    row: PAIR_QUALITIES.findIndex((q) => q.name === low.name),
    column: PAIR_QUALITIES.findIndex((q) => q.name === high.name),
  }
}

/** The pairs of the cell in view, nearest first; empty where no pair is laid. */
export const pairsInCell = (openChart: OpenChart): MapCell | null => {
  const reading = openChart.current?.reading
  const at = reading && cellOf(reading.overlay)
  if (!reading || !at || at.distance === 0) return null
  return mapFor(reading.place, at.distance, openChart.settings.weights)[at.row]?.[at.column] ?? null
}

/** Of a cell, the pair that lies furthest in; of those that share notes, or share none, where that is asked. */
export const bestIn = ({ all }: MapCell, shared: Shared): MapCell['all'][number] | undefined =>
  shared === 'any'
    ? all[0]
    : all.find((r) => {
        const [a, b] = r.overlay().groups ?? []
        return a !== undefined && b !== undefined && ((a.set & b.set) === 0) === (shared === 'none')
      })

/** Goes to a cell: its pair that lies furthest in. */
export const goToCell = ({ distance, row, column }: CellAt, shared: Shared, openChart: OpenChart): void => {
  const spot = openChart.current?.reading?.place
  if (!spot) return
  const cell = mapFor(spot, distance, openChart.settings.weights)[row]?.[column]
  const best = cell && bestIn(cell, shared)
  if ($address.get()?.distance !== distance) go({ distance })
  if (best) layWritten(best.overlay().name, openChart)
}

export const movePair = (by: 1 | -1, openChart: OpenChart): void => {
  const all = pairsInCell(openChart)?.all ?? []
  const set = openChart.current?.reading?.overlay.set
  const at = all.findIndex((r) => r.candidate.set === set)
  const to = all[Math.max(0, Math.min(all.length - 1, at + by))]
  if (to) layWritten(to.overlay().name, openChart)
}
