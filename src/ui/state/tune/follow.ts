import { beatTicks, type Chain, type KeptStep, type SpotInChart, ticks } from '../../../core/index.ts'

/** Spots cut where a route has a step of its own, and where each of the old ones now begins. */
export interface Followed<S extends SpotInChart> {
  readonly spots: readonly S[]
  readonly movedTo: readonly number[]
}

/** Cuts spots at a route's steps: both parts keep what is said of the chord, and the first goes on to the same chord. */
export const cutAtSteps = <S extends SpotInChart>(spots: readonly S[], steps: readonly KeptStep[]): Followed<S> => {
  if (steps.length === 0) return { spots, movedTo: spots.map((s) => s.index) }
  const cut: S[] = []
  const movedTo: number[] = []
  for (const s of spots) {
    movedTo.push(cut.length)
    const { bar, at, length, chord, metre } = s.spot
    const inside = steps
      .filter((step) => step.bar === bar && step.beat !== undefined)
      .map((step) => ticks(((step.beat ?? 1) - 1) * beatTicks(metre)))
      .filter((t) => t > at && t < at + length)
    const starts = [...new Set([at, ...inside])].sort((a, b) => a - b)
    for (const [i, start] of starts.entries()) {
      const end = starts[i + 1]
      const spot = { ...s.spot, at: start, length: ticks((end ?? at + length) - start) }
      const next = end === undefined || chord.kind !== 'chord' ? s.next : chord
      cut.push({ ...s, spot, next, index: cut.length })
    }
  }
  return { spots: cut, movedTo }
}

/** Chains with their spots where they are after the cutting. */
export const moveChains = (chains: readonly Chain[], movedTo: readonly number[]): readonly Chain[] => {
  const moved = (hold: Chain['from']): Chain['from'] => ({
    ...hold,
    spots: hold.spots.map((s) => ({ ...s, index: movedTo[s.index] ?? s.index })),
  })
  return chains.map((c) => ({ ...c, from: moved(c.from), to: moved(c.to) }))
}
