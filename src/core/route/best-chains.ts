import type { PcSet } from '../pitch/units.ts'
import { ROUTE_COSTS } from './costs.ts'
import { type Device, deviceName } from './device.ts'
import { FORBIDDEN, type SeamRule } from './seam-rules.ts'
import { type Chain, MOST_DEVICES, Shortlist } from './shortlist.ts'
import { isHeld, type Slot } from './slots.ts'
import { isColour, ownCost, type StepCandidate } from './step-candidates.ts'

/** A slot with its candidates, made ready to be chained. */
export interface Level {
  readonly slot: Slot
  readonly candidates: readonly StepCandidate[]
  readonly sets: Uint16Array
  /** What each candidate costs by itself. */
  readonly own: Int32Array
  /** Its device as a number where it is a colour played anew, else -1. */
  readonly devices: Int32Array
  /** Whether a set that stays here goes on and is not played anew: the chord is held. */
  readonly held: boolean
  /** By set, the place of the candidate that has it; `NO_PLACE` where none has. */
  readonly placeOfSet: Int16Array
}

/** A level with the rule for the seam that leads to it. */
export interface Layer extends Level {
  readonly seam: SeamRule
  /** The first step once more, to close a loop: nothing is charged there but its seam. */
  readonly closes?: boolean
}

export const NO_DEVICE = -1

export const NO_PLACE = -1

export const placesOf = (sets: Uint16Array): Int16Array => {
  const places = new Int16Array(4096).fill(NO_PLACE)
  for (let at = 0; at < sets.length; at++) places[sets[at] as number] = at
  return places
}

/** Devices as numbers, the same throughout a planning. */
export const numbering = (): ((device: Device) => number) => {
  const known = new Map<Device, number>()
  const named = new Map<string, number>()
  return (device) => {
    const before = known.get(device)
    if (before !== undefined) return before
    const name = deviceName(device)
    const n = named.get(name) ?? named.size
    named.set(name, n)
    known.set(device, n)
    return n
  }
}

export const levelOf = (
  slot: Slot,
  before: Slot | null,
  candidates: readonly StepCandidate[],
  number: (device: Device) => number,
): Level => {
  const sets = Uint16Array.from(candidates, (c) => c.set)
  return {
    slot,
    candidates,
    sets,
    own: Int32Array.from(candidates, ownCost),
    devices: Int32Array.from(candidates, (c) => (isColour(c) && !slot.carries ? number(c.device()) : NO_DEVICE)),
    held: before !== null && isHeld(before, slot),
    placeOfSet: placesOf(sets),
  }
}

export interface ChainWish {
  readonly best: number
  /** Whether a device right after itself has its price. */
  readonly repeatsCount: boolean
  readonly eachSeries: boolean
  /** Whether one overlay kept on over a third different chord has its price. */
  readonly keptCounts: boolean
  /** Only chains that cost less than this are of use. */
  readonly bound: number
  /** What it costs at least to go on from each candidate to the end. */
  readonly ahead: readonly Int32Array[]
  /** The only candidate of the first layer that is tried, or null. */
  readonly first: number | null
  /** The number of a series grown by one device. */
  readonly grown: Grown
}

export type Grown = (series: number, device: number) => number

/** Numbers for series of devices: one series grown by one device is always the same number. */
export const seriesNumbers = (): Grown => {
  const known = new Map<number, number>()
  return (series, device) => {
    const key = series * MOST_DEVICES + device
    const n = known.get(key) ?? known.size + 1
    known.set(key, n)
    return n
  }
}

/**
 * The cheapest chains through the layers, exactly: dynamic programming over (candidate, last colour device). Yields after
 * each layer, with the share done, so that whoever runs it can show progress or stop.
 */
export function* bestChains(layers: readonly Layer[], wish: ChainWish): Generator<number, readonly Chain[]> {
  let lists: (readonly Chain[])[] = []
  for (const [step, layer] of layers.entries()) {
    const ahead = wish.ahead[step]
    const boundAt = (c: number): number => wish.bound - (ahead?.[c] ?? 0)
    lists = step === 0 ? starts(layer, wish, boundAt) : extended(lists, layers[step - 1] as Layer, layer, wish, boundAt)
    yield (step + 1) / layers.length
  }
  const last = new Shortlist(wish.best, wish.eachSeries, true, wish.bound)
  for (const list of lists) for (const chain of list) if (chain.cost < last.limit) last.add(chain)
  return last.chains
}

/** Whether a colour is not played anew: its chord is held and it stays. */
export const keptOn = (from: Layer, p: number, to: Layer, at: number): boolean =>
  to.held && from.sets[p] === to.sets[at] && from.devices[p] === to.devices[at]

/** Whether a chain keeps its overlay while the chord changes. */
const keepsOver = (from: Layer, p: number, to: Layer, at: number): boolean =>
  from.sets[p] === to.sets[at] && !to.closes && !to.slot.carries && from.slot.chord.symbol !== to.slot.chord.symbol

/** Over how many different chords in a row a chain then has its overlay: 1, or 2 for more. */
export const runAfter = (run: number, from: Layer, p: number, to: Layer, at: number): number =>
  from.sets[p] !== to.sets[at] ? 1 : keepsOver(from, p, to, at) ? 2 : run

/** What it costs to keep an overlay over one more chord: nothing over a second, a repeat over a third and further. */
export const keptPrice = (run: number, from: Layer, p: number, to: Layer, at: number): number =>
  run > 1 && keepsOver(from, p, to, at) ? ROUTE_COSTS.repeat : 0

const starts = (
  { own, devices, candidates }: Layer,
  wish: ChainWish,
  boundAt: (c: number) => number,
): (readonly Chain[])[] =>
  candidates.map((_, at) => {
    const [cost, device] = [own[at] as number, devices[at] as number]
    if (cost >= boundAt(at) || (wish.first !== null && wish.first !== at)) return NO_CHAINS
    const series = device === NO_DEVICE ? 0 : wish.grown(0, device)
    return [{ cost, from: null, at, device: wish.repeatsCount ? device : NO_DEVICE, series, run: 1 }]
  })

/** Where a layer has a set among its candidates. */
export const placeIn = ({ placeOfSet }: Level, set: PcSet): number | undefined => {
  const place = placeOfSet[set] as number
  return place === NO_PLACE ? undefined : place
}

const NO_CHAINS: readonly Chain[] = []

const extended = (
  lists: readonly (readonly Chain[])[],
  from: Layer,
  to: Layer,
  wish: ChainWish,
  boundAt: (c: number) => number,
): (readonly Chain[])[] => {
  const alive = [...lists.keys()]
    .filter((p) => (lists[p]?.length ?? 0) > 0)
    .sort((a, b) => (lists[a]?.[0]?.cost ?? 0) - (lists[b]?.[0]?.cost ?? 0))
  const cheapest = lists[alive[0] ?? -1]?.[0]?.cost ?? 0
  return to.candidates.map((_, at) => {
    const set = to.sets[at] as PcSet
    const [own, device] = [to.own[at] as number, to.devices[at] as number]
    const oneDevice = !wish.repeatsCount || device !== NO_DEVICE
    const list = new Shortlist(wish.best, wish.eachSeries, oneDevice, boundAt(at))
    // Chains that have kept their overlay over a second chord lie apart: only they can be charged at a third.
    const kept = wish.keptCounts ? new Shortlist(wish.best, wish.eachSeries, oneDevice, boundAt(at)) : list
    const only = to.seam.before?.(set).flatMap((s) => placeIn(from, s) ?? [])
    if (!only && cheapest + own >= list.limit) return NO_CHAINS
    const join = (p: number): void => {
      const seam = to.seam.cost(from.sets[p] as PcSet, set)
      if (seam === FORBIDDEN) return
      const goesOn = device === NO_DEVICE || keptOn(from, p, to, at)
      const stays = wish.keptCounts && from.sets[p] === set
      for (const chain of lists[p] as readonly Chain[]) {
        const run = stays ? runAfter(chain.run, from, p, to, at) : 1
        const into = run > 1 ? kept : list
        const joined = chain.cost + seam + own
        if (joined >= list.limit && joined >= kept.limit) break
        const price =
          (!goesOn && chain.device === device ? ROUTE_COSTS.repeat : 0) +
          (stays ? keptPrice(chain.run, from, p, to, at) : 0)
        if (joined + price >= into.limit) continue
        into.add({
          cost: joined + price,
          from: chain,
          at,
          device: !wish.repeatsCount ? NO_DEVICE : device === NO_DEVICE ? chain.device : device,
          series: goesOn ? chain.series : wish.grown(chain.series, device),
          run,
        })
      }
    }
    const same = wish.keptCounts ? placeIn(from, set) : undefined
    if (same !== undefined && (!only || only.includes(same))) join(same)
    for (const p of only ?? alive) {
      const chains = lists[p] as readonly Chain[]
      if (chains.length === 0 || p === same) continue
      if (!only && (chains[0] as Chain).cost + own >= list.limit) break
      join(p)
    }
    return kept === list || kept.chains.length === 0
      ? list.chains
      : [...list.chains, ...kept.chains].sort((a, b) => a.cost - b.cost)
  })
}
